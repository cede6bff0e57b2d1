"use client";

export default function PageError({ reset }: { error: Error; reset: () => void }) {
  return (
    <div className="mx-auto max-w-xl space-y-4 py-16 text-center">
      <h1 className="text-3xl font-bold">This page could not be shown</h1>
      <p>That is our fault, not yours. What you saved is safe, and what you typed is kept in this browser.</p>
      <button type="button" className="btn btn-main" onClick={reset}>
        Try again
      </button>
    </div>
  );
}
