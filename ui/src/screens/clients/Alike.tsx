import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { styled } from "styled-components";
import { api, must } from "../../api/client";
import { Notice } from "../../parts/layout";

const Found = styled(Notice)`
  display: block;
  a {
    color: inherit;
  }
`;
const whole = /^(\d{4}-\d{2}-\d{2})?$/;

interface Props {
  id: string;
  given: string;
  family: string;
  born: string;
}

/** Someone of a like name, or born on the same day, may be the same person. */
export function Alike({ id, given, family, born }: Props) {
  const { data } = useQuery({
    queryKey: ["alike", given, family, born],
    enabled: given.length > 1 && family.length > 1 && whole.test(born),
    queryFn: () =>
      must(
        api.GET("/api/clients/{id}/alike", {
          params: { path: { id }, query: { given_name: given, family_name: family, born_on: born } },
        }),
      ),
  });
  if (!data?.items.length) return null;
  return (
    <Found role="status">
      Already here?{" "}
      {data.items.map((c, i) => (
        <span key={c.id}>
          {i > 0 && ", "}
          <Link to={`/clients/${c.id}`}>
            {c.given_name} {c.family_name}
          </Link>
          {c.age === undefined ? "" : `, ${c.age}`}
          {c.archived ? " (archived)" : ""}
        </span>
      ))}
    </Found>
  );
}
