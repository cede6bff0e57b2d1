"use client";

import type { ReactNode } from "react";
import { Controller, FormProvider, useFormContext, type FieldValues, type UseFormReturn } from "react-hook-form";
import type { NumberField } from "@/core/quantity";
import { Pick, type Option } from "../kit/Pick";
import { Choice } from "../kit/Choice";
import { Fault } from "../kit/controls";
import { QuantityField, stoppedByUnread, type QuantityFieldProps } from "./QuantityField";

/** A form that is sent as a whole. Its schema judges it when it is sent, and again at every change after that. */
export function Form<V extends FieldValues, Out>({
  form,
  onSubmit,
  className = "space-y-3",
  children,
}: {
  form: UseFormReturn<V, unknown, Out>;
  /** What to do with what the schema made of it; a message when that was refused. */
  onSubmit: (values: Out) => Promise<string | null | void>;
  className?: string;
  children: ReactNode;
}) {
  const send = form.handleSubmit(async (values) => {
    const refused = await onSubmit(values);
    if (refused) form.setError("root", { message: refused });
  });
  return (
    <FormProvider {...form}>
      <form noValidate className={className} onSubmit={(e) => void (stoppedByUnread(e) || send(e))}>
        {children}
      </form>
    </FormProvider>
  );
}

/** What the server refused. */
export function FormFault() {
  const { formState } = useFormContext();
  return <Fault>{formState.errors.root?.message}</Fault>;
}

/** The fault of the value at a dotted name, or of anything inside it. */
export function useFault(name: string): string | null {
  const { getFieldState, formState } = useFormContext();
  const find = (error: unknown): string | null => {
    if (typeof error !== "object" || error === null) return null;
    if ("message" in error && typeof error.message === "string") return error.message;
    for (const [key, inner] of Object.entries(error)) {
      const found = key === "ref" ? null : find(inner);
      if (found) return found;
    }
    return null;
  };
  const fault = find(getFieldState(name, formState).error);
  return fault && fault[0]!.toUpperCase() + fault.slice(1);
}

export function TextInput({
  name,
  label,
  most,
  placeholder,
  type = "text",
  large = false,
  autoFocus = false,
  autoComplete = "off",
}: {
  name: string;
  label: string;
  /** Most letters. */
  most?: number;
  placeholder?: string;
  type?: "text" | "password" | "date";
  large?: boolean;
  autoFocus?: boolean;
  autoComplete?: string;
}) {
  const { register } = useFormContext();
  const fault = useFault(name);
  return (
    <label className="block min-w-0 space-y-1">
      <span className="label">{label}</span>
      <input
        {...register(name)}
        type={type}
        className={`field ${large ? "text-lg" : ""}`}
        maxLength={most}
        placeholder={placeholder}
        autoFocus={autoFocus}
        autoComplete={autoComplete}
        aria-invalid={fault ? true : undefined}
      />
      <Fault>{fault}</Fault>
    </label>
  );
}

/** A quantity of a form, null while unanswered. */
export function QuantityInput({ name, remark, ...field }: Omit<QuantityFieldProps, "value" | "onChange"> & { name: string }) {
  const fault = useFault(name);
  return (
    <Controller
      name={name}
      render={({ field: { value, onChange } }) => (
        <QuantityField
          optional
          {...field}
          value={typeof value === "number" ? value : null}
          onChange={onChange}
          remark={fault ? { message: fault, severity: "fault" } : remark}
        />
      )}
    />
  );
}

/** The number a table describes, in a form. */
export function TableInput({ name, field, label }: { name: string; field: NumberField; label?: string }) {
  return <QuantityInput name={name} label={label ?? field.label} dimension={field.dimension} min={field.min} max={field.max} whole={field.whole ?? false} />;
}

/** The fault of a list as a whole, such as its order. */
export function GroupFault({ name }: { name: string }) {
  const { getFieldState, formState } = useFormContext();
  const error = getFieldState(name, formState).error;
  return <Fault>{error?.root?.message ?? error?.message}</Fault>;
}

export function PickInput({ name, ...field }: { name: string; label: string; options: readonly Option[]; none?: string }) {
  const fault = useFault(name);
  return (
    <Controller
      name={name}
      render={({ field: { value, onChange } }) => <Pick {...field} value={typeof value === "string" ? value : null} onChange={onChange} fault={fault} />}
    />
  );
}

export function ChoiceInput<T extends string>({ name, ...field }: { name: string; label: string; options: readonly { value: T; label: string }[] }) {
  return <Controller name={name} render={({ field: { value, onChange } }) => <Choice {...field} value={value as T} onChange={onChange} />} />;
}
