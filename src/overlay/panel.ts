/** So wide is the edge of a panel of this height. */
export const edgeOf = (height: number): number => Math.max(6, height * 0.05);

/**
 * A dark panel over all of a scene's own canvas, so that letters are read over any picture. False where there is nothing
 * to draw: it is away, or its page has no size yet.
 */
export function paintPanel(context: CanvasRenderingContext2D, width: number, height: number, there: number): boolean {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, width, height);
  if (there <= 0 || width < 40 || height < 40) return false;
  context.globalAlpha = there;
  context.fillStyle = "rgba(16,19,27,.72)";
  context.beginPath();
  context.roundRect(0, 0, width, height, edgeOf(height) * 0.8);
  context.fill();
  return true;
}
