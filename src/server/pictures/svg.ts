import sanitizeHtml from "sanitize-html";

const tags = [
  "svg",
  "g",
  "path",
  "rect",
  "circle",
  "ellipse",
  "line",
  "polyline",
  "polygon",
  "defs",
  "linearGradient",
  "radialGradient",
  "stop",
  "clipPath",
  "mask",
  "use",
  "symbol",
  "title",
  "desc",
  "text",
  "tspan",
];
const attributes = [
  "id",
  "d",
  "x",
  "y",
  "x1",
  "x2",
  "y1",
  "y2",
  "cx",
  "cy",
  "r",
  "rx",
  "ry",
  "fx",
  "fy",
  "width",
  "height",
  "viewBox",
  "points",
  "transform",
  "opacity",
  "offset",
  "preserveAspectRatio",
  "xmlns",
  "fill",
  "fill-opacity",
  "fill-rule",
  "clip-rule",
  "stroke",
  "stroke-width",
  "stroke-linecap",
  "stroke-linejoin",
  "stroke-miterlimit",
  "stroke-dasharray",
  "stroke-dashoffset",
  "stroke-opacity",
  "stop-color",
  "stop-opacity",
  "clip-path",
  "mask",
  "gradientUnits",
  "gradientTransform",
  "clipPathUnits",
  "maskUnits",
  "maskContentUnits",
  "spreadMethod",
  "font-size",
  "font-weight",
  "text-anchor",
  "color",
  "display",
  "visibility",
  "paint-order",
];

export const looksLikeSvg = (text: string): boolean => /<svg[\s>]/i.test(text.slice(0, 20_000)) && !/<!ENTITY/i.test(text);

/**
 * What is left of an SVG when only shapes and paint remain: no script, style sheet, event handler,
 * foreign content, picture, animation or reference to anything outside itself. Null when it is no SVG.
 */
export function cleanSvg(text: string): string | null {
  if (!looksLikeSvg(text)) return null;
  const clean = sanitizeHtml(text, {
    allowedTags: tags,
    allowedAttributes: { "*": [...attributes, "href", "xlink:href", "xmlns:xlink"] },
    allowedSchemes: [],
    parser: { xmlMode: true, lowerCaseTags: false, lowerCaseAttributeNames: false },
    transformTags: {
      "*": (tagName, given) => {
        const kept: Record<string, string> = {};
        for (const [name, value] of Object.entries(given)) {
          // Only places inside the same file: `#id` for use, `url(#id)` for paint.
          if (/href$/.test(name) && !/^#[\w.-]+$/.test(value)) continue;
          if (/url\s*\(/i.test(value) && !/^url\(\s*['"]?#[\w.-]+['"]?\s*\)$/.test(value.trim())) continue;
          kept[name] = value;
        }
        return { tagName, attribs: kept };
      },
    },
  });
  return /<svg[\s>]/.test(clean) ? clean.trim() : null;
}
