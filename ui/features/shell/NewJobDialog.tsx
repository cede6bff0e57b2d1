"use client";

import { zodResolver } from "@hookform/resolvers/zod";
import { useRouter } from "next/navigation";
import { useForm } from "react-hook-form";
import * as z from "zod";
import { useActKey } from "../../data/key";
import { call } from "../../data/call";
import { Form, FormFault, TextInput } from "../../form/Form";
import { Dialog } from "../../kit/Dialog";

const NewJob = z.object({ name: z.string().trim().min(1, "Give the job a name, such as the piece you are moulding.") });

/** Names a job and opens it. */
export function NewJobDialog({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const { key } = useActKey();
  const form = useForm({ resolver: zodResolver(NewJob), defaultValues: { name: "" } });
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title="Start a job" description="One job is one piece: its master, its mould and what you cast in it.">
      <Form
        form={form}
        className="space-y-4"
        onSubmit={async ({ name }) => {
          const made = await call("jobs", "make", { body: { key: key(), name } });
          if (!made.ok) return made.message;
          onClose();
          router.push(`/jobs/${made.data.id}`);
        }}
      >
        <TextInput name="name" label="What are you making?" most={80} large autoFocus />
        <FormFault />
        <button type="submit" className="btn btn-main w-full" disabled={form.formState.isSubmitting}>
          Start
        </button>
      </Form>
    </Dialog>
  );
}
