import { useState } from "react";
import { useNavigate } from "react-router";
import { api, must } from "../../../api/client";
import { Button, ErrorPanel } from "../../../parts/controls";
import { Row } from "../../../parts/layout";

/** The way back, and taking the picture away or bringing it back. */
export function Removal({ photo, visit }: { photo: string; visit: string }) {
  const go = useNavigate();
  const [gone, setGone] = useState(false);
  const [error, setError] = useState<Error>();
  const params = { path: { id: photo } };
  const set = async (away: boolean) => {
    try {
      await must(
        away
          ? api.POST("/api/photos/{id}/remove", { params })
          : api.POST("/api/photos/{id}/restore", { params }),
      );
      setGone(away);
      setError(undefined);
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <>
      {error && <ErrorPanel error={error} />}
      <Row $wrap>
        <Button onPress={() => go(`/visits/${visit}?step=measure`)}>Back to the visit</Button>
        {gone ? (
          <Button onPress={() => set(false)}>Bring the picture back</Button>
        ) : (
          <Button $kind="stop" onPress={() => set(true)}>
            Remove the picture
          </Button>
        )}
      </Row>
    </>
  );
}
