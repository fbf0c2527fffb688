/** A refusal beside what it is about; nothing when there is none. */
export const Fault = ({ text }: { readonly text: string | undefined }) =>
  text ? (
    <p role="alert" className="mt-1 max-w-prose text-danger">
      {text}
    </p>
  ) : null;
