import { type Coming, type Due, withoutComing } from "./pile-parts";

/** What waits its turn, in order: pieces that are to come in, and what is done to all that came before. */
export class Turns {
  private due: Due[] = [];
  private spawnedStep = 0;

  get empty(): boolean {
    return this.due.length === 0;
  }
  /** Whether something is to be done yet to what is there. */
  get doing(): boolean {
    return this.due.some((d) => "act" in d);
  }
  /** From which step on another handful comes in. */
  next(stepNo: number, rowSteps: number): number {
    return this.due.length === 0 ? stepNo + 1 : this.last(stepNo) + rowSteps;
  }
  private last(stepNo: number): number {
    return this.due[this.due.length - 1]?.atStep ?? stepNo;
  }
  add(coming: readonly Coming[]): void {
    this.due.push(...coming);
  }
  /** Once all that was told before has come, and had so many steps to fall. */
  then(stepNo: number, steps: number, act: () => void): void {
    const from = this.due.length > 0 ? this.last(stepNo) : Math.max(stepNo, this.spawnedStep);
    this.due.push({ atStep: Math.max(stepNo + 1, from + steps), act });
  }
  /** What is due by a step; pieces wait where nothing can come in, what is done goes on. */
  take(stepNo: number, shut: () => boolean, spawn: (due: Coming) => void): void {
    for (let at = 0; ;) {
      const due = this.due[at];
      if (due === undefined || due.atStep > stepNo) return;
      if ("ref" in due && shut()) {
        at += 1;
        continue;
      }
      this.due.splice(at, 1);
      if ("act" in due) due.act();
      else {
        this.spawnedStep = stepNo;
        spawn(due);
      }
    }
  }
  /** Of one ref so many do not come, the last first; how many that were. */
  leaveOut(ref: number, most: number): number {
    const some = Math.min(most, this.due.filter((d) => "ref" in d && d.ref === ref).length);
    if (some > 0) this.due = withoutComing(this.due, ref, some);
    return some;
  }
  each(put: (ref: number) => void): void {
    for (const d of this.due) if ("ref" in d) put(d.ref);
  }
  clear(): void {
    this.due = [];
  }
}
