import { Button as AriaButton } from "react-aria-components";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { day } from "../../parts/words";

interface Props {
  clients: Schemas["Client"][];
  zone: string;
  chosen?: string;
  /** The front desk opens a client here; others go to the client's page. */
  onChoose?: (c: Schemas["Client"]) => void;
}

export function ClientTable({ clients, zone, chosen, onChoose }: Props) {
  return (
    <table>
      <thead>
        <tr>
          <th>Client</th>
          <th>Age</th>
          <th>{onChoose ? "Phone" : "Complaint"}</th>
          <th>Visits</th>
          <th>Last</th>
        </tr>
      </thead>
      <tbody>
        {clients.map((c) => (
          <tr key={c.id}>
            <td>
              {onChoose ? (
                <AriaButton aria-pressed={chosen === c.id} onPress={() => onChoose(c)}>
                  {c.given_name} {c.family_name}
                </AriaButton>
              ) : (
                <Link to={`/clients/${c.id}`}>
                  {c.given_name} {c.family_name}
                </Link>
              )}
            </td>
            <td className="num">{c.age ?? "–"}</td>
            <td className="quiet">{onChoose ? c.phone : c.complaint}</td>
            <td className="num">{c.visits ?? 0}</td>
            <td className="num quiet last">{c.last_visit ? day(c.last_visit, zone) : "–"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
