/** @jest-environment jsdom */
import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { act, cleanup, fireEvent, renderHook, screen, waitFor } from "@testing-library/react";
import { allGames } from "../core/games/registry";
import { withValueAt } from "../core/words/sentence";
import { kept, shown } from "../testing/screen";
import { DropArea, useDrop } from "./drop-area";
import { IconButton } from "./icon-button";
import { type Act, keyLabel, keyOf, useActs, useOffer } from "./keys";
import { Modal } from "./modal";
import { SentenceForm } from "./sentence-form";
import { SortableList, SortableRow } from "./sortable";
import { useSure } from "./sure";

afterEach(cleanup);

describe("what is asked twice", () => {
  test("is done by the second press alone, and never by one that came back from elsewhere", () => {
    const run = jest.fn();
    const { result } = renderHook(() => useSure("End the show", run));
    act(() => result.current.press());
    expect([result.current.words, run.mock.calls.length]).toEqual(["Yes, end the show", 0]);
    act(() => result.current.leave());
    expect(result.current.words).toBe("End the show");
    act(() => result.current.press());
    expect(run).not.toHaveBeenCalled();
    act(() => result.current.press());
    expect([run.mock.calls.length, result.current.sure]).toEqual([1, false]);
  });
});

describe("a dialog", () => {
  test("has a name, holds what it asks, and is left by its corner or by Escape", async () => {
    const onClose = jest.fn();
    const { user } = shown(
      <Modal title="Old Spall is in use" urgent onClose={onClose}>
        <button type="button">Keep it</button>
      </Modal>,
    );
    const dialog = await screen.findByRole("alertdialog", { name: "Old Spall is in use" });
    await waitFor(() => expect(dialog.contains(document.activeElement)).toBe(true));
    await user.keyboard("{Escape}");
    await user.click(screen.getByRole("button", { name: "Close" }));
    expect(onClose).toHaveBeenCalledTimes(2);
  });
});

describe("a small button", () => {
  test("that shows a sign alone says in words what it does", async () => {
    const onClick = jest.fn();
    const { user } = shown(
      <IconButton label="Take this cue out" onClick={onClick}>
        ×
      </IconButton>,
    );
    await user.click(screen.getByRole("button", { name: "Take this cue out" }));
    expect(onClick).toHaveBeenCalledTimes(1);
  });
});

describe("files", () => {
  const file = new File(["x"], "bell.wav", { type: "audio/wav" });
  function Area({ onFiles }: Readonly<{ onFiles: (files: File[]) => void }>) {
    const { over, handlers } = useDrop(onFiles);
    return (
      <section {...handlers} aria-label="Sounds" data-over={over}>
        <DropArea title="Drop" about="here" accept="audio/*" label="Sound files" button="Choose" over={over} onFiles={onFiles} />
      </section>
    );
  }
  test("are chosen, the same one again too, or dropped anywhere on the place that says so", async () => {
    const onFiles = jest.fn<(files: File[]) => void>();
    const { user } = shown(<Area onFiles={onFiles} />);
    await user.upload(screen.getByLabelText("Sound files"), file);
    await user.upload(screen.getByLabelText("Sound files"), file);
    expect(onFiles.mock.calls).toEqual([[[file]], [[file]]]);
    const place = screen.getByRole("region", { name: "Sounds" });
    fireEvent.dragOver(place);
    expect(place.dataset["over"]).toBe("true");
    // Over what stands in it, it is still over it.
    fireEvent(place, new MouseEvent("dragleave", { bubbles: true, relatedTarget: screen.getByText("Drop") }));
    expect(place.dataset["over"]).toBe("true");
    fireEvent.drop(place, { dataTransfer: { files: [file] } });
    expect([place.dataset["over"], onFiles.mock.lastCall]).toEqual(["false", [[file]]]);
  });
});

describe("a list that is put in order", () => {
  test("every row has a grip that is named, and is told how it is used", () => {
    const ids = ["a", "b"];
    shown(
      <SortableList ids={ids} nameOf={(id) => id.toUpperCase()} onMove={() => undefined}>
        {ids.map((id) => (
          <SortableRow key={id} id={id} name={id.toUpperCase()}>
            {id}
          </SortableRow>
        ))}
      </SortableList>,
    );
    expect(screen.getAllByRole("listitem")).toHaveLength(2);
    const grip = screen.getByRole("button", { name: "Move B" });
    expect(document.getElementById(grip.getAttribute("aria-describedby") ?? "")?.textContent).toMatch(/Space takes it up/);
  });
});

describe("actions that are offered", () => {
  const one: Act = { id: "x", label: "X", group: "G", key: "q", run: () => undefined };
  test("stand in the one list while their screen does, and go with it", () => {
    const acts = [one];
    const { unmount } = renderHook(() => useOffer("screen", acts));
    expect(useActs.getState().lists["screen"]).toBe(acts);
    unmount();
    expect(Object.hasOwn(useActs.getState().lists, "screen")).toBe(false);
  });
  test("have the key that was chosen, none where it was turned off, their own otherwise; as it is written on it", () => {
    expect([keyOf(one, {}), keyOf(one, { x: "w" }), keyOf(one, { x: null }), keyOf({ ...one, id: "constructor" }, {})]).toEqual([
      "q",
      "w",
      null,
      "q",
    ]);
    expect([keyLabel("q"), keyLabel("$mod+Shift+z"), keyLabel("/")]).toEqual(["Q", "Ctrl/⌘ Shift Z", "/"]);
  });
});

describe.each(allGames().map((g) => [g.name, g] as const))("the rules of a game as a form: %s", (_, game) => {
  test("every blank has a name, stands in its sentence, and tells the place of what it changes", async () => {
    const facts = { home: "EUR" } as never;
    const { user, set } = kept(game.defaults as unknown, (settings, onSet) => (
      <SentenceForm
        sentences={game.sentences(settings as never, facts)}
        settings={settings}
        onChange={(path, value) => onSet(withValueAt(settings, path, value))}
      />
    ));
    const fields = [...document.querySelectorAll("input, select, [aria-haspopup]")];
    expect(fields.length).toBeGreaterThan(3);
    for (const field of fields) expect(field.getAttribute("aria-label")).toBeTruthy();
    const number = [...document.querySelectorAll<HTMLInputElement>("input[inputmode=decimal]")][0];
    if (number === undefined) return;
    await user.click(number);
    await user.keyboard("{ArrowUp}");
    const changed = set.mock.lastCall?.[0];
    expect(JSON.stringify(changed)).not.toBe(JSON.stringify(game.defaults));
    expect(game.settings.safeParse(changed).success).toBe(true);
  });
});
