export type Film = { name: string; tells: string };

/** Made-up films at addresses of their own, to be shown to the channel: one names them in chat, or in the text of a tip. */
export function Shelf({ films, onPick }: { films: Film[]; onPick: (address: string) => void }) {
  const at = (name: string): string => `http://127.0.0.1:${location.port}/shelf/${name}`;
  return (
    <section aria-label="Films" className="shelf">
      <h2>A shelf of films</h2>
      <p className="kind">Each has an address. Name one in chat, or copy it into a tip’s text.</p>
      <ul>
        {films.map(({ name, tells }) => (
          <li key={name}>
            <button type="button" onClick={() => onPick(`${at(name)} 0:0${name === "sail.webm" ? 7 : 2} 12s`)}>
              {name.replace(/\.\w+$/, "")}
            </button>{" "}
            {tells}
          </li>
        ))}
      </ul>
    </section>
  );
}
