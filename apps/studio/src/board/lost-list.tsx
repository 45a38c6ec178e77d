/** What could not come along to another site. */
export function LostList({ lost }: { readonly lost: readonly string[] }) {
  if (lost.length === 0) return <p>Everything comes along.</p>;
  return (
    <div>
      <p className="mb-1 font-medium">What the site lacks and cannot come along:</p>
      <ul className="list-disc pl-5 text-soft">
        {lost.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </div>
  );
}
