import babel, { defineRolldownBabelPreset } from "@rolldown/plugin-babel";

/** Styled components are named by where they stand, and not by the order in which they run: the build that
 * writes the form and the script that takes it up call them the same. Their styles lose what only readers
 * need. */
export const styledIDs = babel({
  presets: [
    defineRolldownBabelPreset({
      preset: {
        plugins: [["babel-plugin-styled-components", { displayName: false, fileName: false, pure: true }]],
      },
      rolldown: { filter: { code: /from "styled-components"/ } },
    }),
  ],
});
