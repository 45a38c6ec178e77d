import { problemWords } from '../api/client.ts';

/** What was refused, in words, under the fields of a door. */
export function Fault({ error }: { readonly error: unknown }) {
  if (!error) return null;
  const { title, detail } = problemWords(error);
  return (
    <p role="alert" className="rounded bg-halt-wash px-3 py-2 text-halt">
      {title}. {detail}
    </p>
  );
}
