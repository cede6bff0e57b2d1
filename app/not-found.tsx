import Link from "next/link";

export default function NotFound() {
  return (
    <div className="mx-auto max-w-xl space-y-4 py-16 text-center">
      <h1 className="text-3xl font-bold">Nothing lies here</h1>
      <p>The job, pour or page of this address is not in the workshop. It may have been put away, or the address is mistyped.</p>
      <Link href="/" className="btn btn-main">
        To the bench
      </Link>
    </div>
  );
}
