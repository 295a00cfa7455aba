// The aftercare sheet on the client's own device, by a code.
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, must } from "../../api/client";
import { ErrorPanel, Waiting } from "../../parts/controls";
import { longDay } from "../../parts/words";
import { Enter } from "../pad/Enter";
import { Page } from "../pad/Page";
import { Sheet } from "./Sheet";

export default function After() {
  const { code } = useParams();
  return code ? <ByCode code={code} /> : <Enter at="/after" />;
}

function ByCode({ code }: { code: string }) {
  const sheet = useQuery({
    queryKey: ["after", code],
    retry: false,
    queryFn: () => must(api.GET("/api/after/{code}", { params: { path: { code } } })),
  });
  if (sheet.error)
    return (
      <Page>
        <ErrorPanel error={sheet.error} />
      </Page>
    );
  if (!sheet.data) return <Waiting>Opening the sheet…</Waiting>;
  return (
    <Page name={sheet.data.practice.name}>
      <Sheet
        practice={sheet.data.practice}
        emergency={sheet.data.emergency_number}
        day={longDay(new Date(sheet.data.day), "UTC")}
        sheet={sheet.data.sheet}
      />
    </Page>
  );
}
