// Writes the page that begins with the sign-in form beside the one that begins with nothing.
//
//   node ui/prerender/write.mjs .mokren/prerender api/web/dist
import { readFileSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";

const [built, dist] = process.argv.slice(2);
const { form } = await import(pathToFileURL(resolve(built, "form.js")).href);
const { html, styles } = form();
const empty = '<div id="root"></div>';
const page = readFileSync(join(dist, "index.html"), "utf8");
if (!page.includes(empty)) throw new Error(`index.html has no ${empty}`);
// Who sends the form before its script is here has sent it: it goes off as soon as the script is (SignInPage).
// The server lets this one script of the page run by its hash.
const early = "onsubmit=e=>{e.preventDefault();document.documentElement.dataset.sent=''}";
writeFileSync(
  join(dist, "signin.html"),
  page
    .replace(/<link [^>]*data-program[^>]*>\s*/g, "")
    .replace("</head>", () => `${styles}<script>${early}</script></head>`)
    .replace(empty, () => `<div id="root">${html}</div>`),
);
