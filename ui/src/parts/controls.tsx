// Small controls: behaviour from React Aria, looks from the theme.
export * from "./Button";
export * from "./Choice";
export * from "./Disclosed";
export * from "./fields";
export { Card } from "./layout";
export * from "./Pick";
export * from "./Slide";
export * from "./status";
export { Text } from "./Text";
