// The body that stands beside the door; with a store of answers of its own, because the form needs
// none.
import { QueryClientProvider } from "@tanstack/react-query";
import { newQueryClient } from "../../api/asking";
import { BodyFrame } from "../../body/BodyFrame";
import { BodySvg } from "../../body/BodySvg";
import { firstViews } from "../../body/figurePath";
import { viewName } from "../../body/views";

const queries = newQueryClient();

export default function Figures() {
  return (
    <QueryClientProvider client={queries}>
      {firstViews.map((v) => (
        <BodyFrame key={v}>
          <BodySvg view={v} />
          <figcaption>{viewName[v]}</figcaption>
        </BodyFrame>
      ))}
    </QueryClientProvider>
  );
}
