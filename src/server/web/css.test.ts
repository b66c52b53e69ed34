import { describe, expect, test } from "@jest/globals";
import { boxedCss } from "./css";

describe("one's own style sheet", () => {
  test.each([
    "",
    ".izzam-alert-text { color: #fff; transform: rotate(2deg) }",
    ".a { background: url(#paint) }",
    `.a { background: url("/props/${"a".repeat(64)}") }`,
    "/* url(http://x.invalid) */ .a { color: red }",
    "@media (min-width: 900px) { .a { color: red } } @keyframes x { from { opacity: 0 } }",
  ])("%s stays within its box", (css) => expect(boxedCss(css).ok).toBe(true));
  test.each([
    "@import url(/x.css);",
    ".a { background: URL( 'https://x.invalid/y' ) }",
    ".a { background: url(//x.invalid/y) }",
    ".a { background: image-set('http://x.invalid/y' 1x) }",
    ".a { background: u\\72l(http://x.invalid) }",
    "</style><script>alert(1)</script>",
    ".a { width: expression(alert(1)) }",
    "@charset 'x'; .a{}",
    ".a { background: url(data:text/html;base64,xxxx) }",
    '.a { content: "/*" } .b { background: url(http://x.invalid) } .c { content: "*/" }',
    ".a { content: '/*' } @import url(http://x.invalid); .c { content: '*/' }",
    '.a { content: "it\'s /*" } .b { background: url(//x.invalid) } /* */',
  ])("%s does not", (css) => expect(boxedCss(css)).toMatchObject({ ok: false, refusal: { code: "css/leaves-its-box" } }));
});
