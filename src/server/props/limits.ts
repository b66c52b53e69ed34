export { mostPropBytes } from "../../core/props/sizes";
