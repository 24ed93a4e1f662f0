/** A page that only says something. */
export function Message({ title, text }: { title: string; text: string }) {
  return (
    <div className="page">
      <header className="head">
        <span className="brand">Heuristor</span>
      </header>
      <main className="empty">
        <h1>{title}</h1>
        <p>{text}</p>
      </main>
    </div>
  );
}
