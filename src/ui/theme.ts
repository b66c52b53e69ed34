import { createSystem, defineConfig } from "@chakra-ui/react";
import { defaultBaseConfig } from "@chakra-ui/react/preset-base";
import {
  animationStyles,
  breakpoints,
  buttonRecipe,
  checkboxSlotRecipe,
  checkmarkRecipe,
  collapsibleSlotRecipe,
  cssVarsPrefix,
  cssVarsRoot,
  dialogSlotRecipe,
  fieldSlotRecipe,
  headingRecipe,
  iconRecipe,
  inputRecipe,
  linkRecipe,
  menuSlotRecipe,
  popoverSlotRecipe,
  progressSlotRecipe,
  radiomarkRecipe,
  separatorRecipe,
  sliderSlotRecipe,
  spinnerRecipe,
  switchSlotRecipe,
  tableSlotRecipe,
  tabsSlotRecipe,
  textareaRecipe,
  toastSlotRecipe,
  globalCss,
  keyframes,
  layerStyles,
  semanticTokens,
  textStyles,
  tokens,
} from "@chakra-ui/react/theme";

/**
 * Of Chakra's own theme what is used here: all eighty recipes are 150 kB of script on every page. A part whose recipe is
 * missing stands there bare.
 */
const ground = defineConfig({
  preflight: true,
  cssVarsPrefix,
  cssVarsRoot,
  globalCss,
  theme: {
    breakpoints,
    keyframes,
    tokens,
    semanticTokens,
    textStyles,
    layerStyles,
    animationStyles,
    recipes: {
      button: buttonRecipe,
      checkmark: checkmarkRecipe,
      heading: headingRecipe,
      icon: iconRecipe,
      input: inputRecipe,
      link: linkRecipe,
      radiomark: radiomarkRecipe,
      textarea: textareaRecipe,
      separator: separatorRecipe,
      spinner: spinnerRecipe,
    },
    slotRecipes: {
      checkbox: checkboxSlotRecipe,
      collapsible: collapsibleSlotRecipe,
      dialog: dialogSlotRecipe,
      field: fieldSlotRecipe,
      menu: menuSlotRecipe,
      popover: popoverSlotRecipe,
      progress: progressSlotRecipe,
      slider: sliderSlotRecipe,
      switch: switchSlotRecipe,
      table: tableSlotRecipe,
      tabs: tabsSlotRecipe,
      toast: toastSlotRecipe,
    },
  },
});

const both = (paper: string, night: string) => ({ value: { base: paper, _dark: night } });
/** One palette as Chakra's parts want it. */
const palette = (
  solid: [string, string],
  on: [string, string],
  text: [string, string],
  soft: [string, string],
  line: [string, string],
) => ({
  solid: both(...solid),
  contrast: both(...on),
  fg: both(...text),
  subtle: both(...soft),
  muted: both(...soft),
  emphasized: both(...line),
  border: both(...line),
  focusRing: both("#3A5F8F", "#86A9D6"),
});

/** Paper and Night: the two surfaces. Night is the class `dark` on the page. */
const config = defineConfig({
  theme: {
    tokens: {
      fonts: {
        heading: { value: "'Bricolage Grotesque Variable', 'Noto Color Emoji', sans-serif" },
        body: { value: "'Atkinson Hyperlegible Next Variable', 'Noto Color Emoji', sans-serif" },
        mono: { value: "'Atkinson Hyperlegible Mono Variable', 'Noto Color Emoji', monospace" },
      },
      // 14 px is the smallest text on the operator side.
      fontSizes: { "2xs": { value: "14px" }, xs: { value: "14px" }, sm: { value: "14.5px" }, md: { value: "16px" } },
    },
    semanticTokens: {
      colors: {
        ground: both("#FBF8F2", "#10131B"),
        raised: both("#F3EDE1", "#191E2A"),
        line: both("#E0D5C1", "#2A3142"),
        ink: both("#191C26", "#F1ECE2"),
        inkSoft: both("#565B69", "#A9AEBB"),
        ochreText: both("#8F6208", "#E0A025"),
        blank: both("#F8E7C6", "#33291A"),
        brickText: both("#B93A26", "#E0654F"),
        mossText: both("#456B28", "#8DB868"),
        slateText: both("#3A5F8F", "#86A9D6"),
        note: both("#E3E8ED", "#1E2634"),
        ochre: palette(
          ["#E0A025", "#E0A025"],
          ["#191C26", "#191C26"],
          ["#8F6208", "#E0A025"],
          // Under the mouse, and open: light enough for the letters above.
          ["#FBF0DA", "#33291A"],
          ["#C98C17", "#8F6208"],
        ),
        brick: palette(
          ["#B93A26", "#E0654F"],
          ["#FFFFFF", "#10131B"],
          ["#B93A26", "#E0654F"],
          ["#F6E0DA", "#3A211D"],
          ["#B93A26", "#E0654F"],
        ),
        plain: palette(
          ["#191C26", "#F1ECE2"],
          ["#FBF8F2", "#10131B"],
          ["#191C26", "#F1ECE2"],
          ["#F3EDE1", "#191E2A"],
          ["#E0D5C1", "#2A3142"],
        ),
        bg: {
          DEFAULT: both("#FBF8F2", "#10131B"),
          subtle: both("#F3EDE1", "#191E2A"),
          muted: both("#F3EDE1", "#191E2A"),
          emphasized: both("#E0D5C1", "#2A3142"),
          panel: both("#FBF8F2", "#191E2A"),
        },
        fg: {
          DEFAULT: both("#191C26", "#F1ECE2"),
          muted: both("#565B69", "#A9AEBB"),
          subtle: both("#565B69", "#A9AEBB"),
          error: both("#B93A26", "#E0654F"),
        },
        border: {
          DEFAULT: both("#E0D5C1", "#2A3142"),
          muted: both("#E0D5C1", "#2A3142"),
          subtle: both("#E0D5C1", "#2A3142"),
          emphasized: both("#C7B997", "#3D4761"),
        },
      },
      radii: { l1: { value: "6px" }, l2: { value: "8px" }, l3: { value: "10px" } },
    },
  },
  globalCss: {
    "html, body": { bg: "ground", color: "ink", fontFamily: "body", fontSize: "16px", minHeight: "100%" },
    html: { colorPalette: "plain", colorScheme: "light", "&.dark": { colorScheme: "dark" } },
    // Room to scroll what is last above the messages at the foot.
    "html:not([data-screen=booth]) main": { paddingBottom: "96px" },
    "h1, h2, h3": { fontFamily: "heading", fontWeight: 700, lineHeight: 1.2 },
    // In the booth, over the foot of the middle column: neither the cue keys nor the talk are covered.
    "html[data-screen=booth] [data-scope=toast][data-part=group]": {
      insetInlineStart: "auto !important",
      insetInlineEnd: "344px !important",
      width: "284px !important",
    },
    "html[data-screen=booth] [data-scope=toast][data-part=root]": { width: "280px !important" },
    "*:focus-visible": { outline: "3px solid", outlineColor: "slateText", outlineOffset: "2px" },
    a: { color: "slateText", textDecoration: "underline", textUnderlineOffset: "3px", textDecorationThickness: "1px" },
    // No transition at all, rather than a very short one: each level of the page would wait for the one above it
    // to arrive, a frame each, and be in half-changed colours meanwhile.
    "*, *::before, *::after": {
      "@media (prefers-reduced-motion: reduce)": { animationDuration: "0.01ms !important", transitionDuration: "0s !important" },
    },
  },
});

export const system = createSystem(defaultBaseConfig, ground, config);
