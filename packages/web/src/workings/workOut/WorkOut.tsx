import { memo } from 'react';
import { Button } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useDialog, useSession } from '../../investigation/context';
import { ChoicePalette } from '../../ui/ChoicePalette';
import { useWorkOutChoices } from './useWorkOutChoices';

/** Opens the list of all that can be worked out; the key / does it too. */
export const WorkOutButton = memo(function WorkOutButton() {
  const session = useSession();
  return (
    <Button
      variant="plain"
      onClick={() => session.dialogs.ask('workOut', true)}
      title="Work something out (/)"
    >
      <PlusLg aria-hidden /> Work out
    </Button>
  );
});

/** All that can be worked out, found by typing a part of its name. */
export function WorkOut({ ofRuns }: { ofRuns: boolean }) {
  return useDialog('workOut') === true ? <OpenPalette ofRuns={ofRuns} /> : null;
}

function OpenPalette({ ofRuns }: { ofRuns: boolean }) {
  const session = useSession();
  const choices = useWorkOutChoices(ofRuns);
  return (
    <ChoicePalette
      title="Work out"
      label="What is to be worked out"
      placeholder="Type a part of its name: deri, sine, mean, g, kinetic energy …"
      choices={choices}
      memory="worked-out"
      none="Nothing is called so. “Formula” works out whatever can be written."
      onClose={session.dialogs.close}
    />
  );
}
