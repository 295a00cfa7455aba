// The sign-in form as text, for the page of who is not signed in: it is there with the first bytes, and
// the script takes it up. Built and run by the build (write.mjs).
import { renderToString } from "react-dom/server";
import { ServerStyleSheet } from "styled-components";
import { SignInForm } from "../src/SignInForm";

export function form() {
  const sheet = new ServerStyleSheet();
  const html = renderToString(sheet.collectStyles(<SignInForm onDone={() => undefined} />));
  return { html, styles: sheet.getStyleTags() };
}
