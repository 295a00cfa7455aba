// The number that is called for urgent medical care: it stands on the screen where the
// screening sends somebody away.
import { useState } from "react";
import { Card, Text } from "../../parts/controls";

export function Emergency({ number, onKeep }: { number: string; onKeep: (n: string) => void }) {
  const [text, setText] = useState(number);
  return (
    <Card $gap={3}>
      <h2>Urgent medical care</h2>
      <Text
        label="Number to call"
        value={text}
        maxLength={30}
        onChange={setText}
        onBlur={() => text.trim() && text !== number && onKeep(text.trim())}
      />
    </Card>
  );
}
