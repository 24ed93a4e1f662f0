/** Nothing is recorded here meanwhile: the device does it. */
export function AwayWords() {
  return (
    <div className="status" role="status">
      <strong>A device records by itself</strong>
      <span className="quiet">Once it is started it may be carried off, and this page closed.</span>
    </div>
  );
}
