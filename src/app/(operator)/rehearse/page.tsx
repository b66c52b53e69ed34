import type { Metadata } from "next";
import { Coming } from "../../_frame/coming";

export const metadata: Metadata = { title: "Rehearse" };

export default function RehearsePage() {
  return (
    <Coming
      title="Nothing to rehearse yet"
      about="Here you will run everything against a simulated crowd without touching real points or results, and ask what a setting will do over thousands of shows. Until then, the booth under Run rehearses a whole show with real overlays and puts every game back afterwards, the strip under each game’s preview lets you try it, and the practice rig plays a crowd in chat."
    />
  );
}
