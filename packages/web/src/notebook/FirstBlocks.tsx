import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useStore } from 'zustand';
import { attempt } from '../api/attempt';
import { countedRuns } from '../trials/counted';
import { useNotebook } from './context';
import { leftOutOf } from './leftOut';
import { listedRuns, outlineOf } from './outline';
import { useNewBlocks } from './newBlocks';
import { useRunsNeeded } from './useRunsNeeded';

/** What an empty notebook offers. */
export function FirstBlocks() {
  const notebook = useNotebook();
  const newBlocks = useNewBlocks();
  const { runs } = useStore(notebook.host.documents);
  const { outcomes } = useStore(notebook.values.state);
  const listed = listedRuns(runs);
  useRunsNeeded(listed);
  const waiting = listed.filter(({ id }) => !outcomes.has(id)).length;
  const [isAsking, setIsAsking] = useState(false);
  const addOutline = async () => {
    setIsAsking(true);
    await attempt(async () => {
      const leftOut = await leftOutOf(countedRuns(runs));
      notebook.addAll(outlineOf(notebook.host, outcomes, leftOut), 'add the outline of a report');
    });
    setIsAsking(false);
  };
  return (
    <div className="first-blocks">
      <p>
        Nothing is written yet. Pin what you see on the Bench or on Trials with <kbd>N</kbd>, write as you go,
        and quote results in your sentences: they follow the workings.
      </p>
      {notebook.mayWrite && (
        <div className="first-choices">
          <Button
            variant="act"
            disabled={waiting > 0}
            aria-busy={isAsking}
            onClick={() => isAsking || void addOutline()}
          >
            {waiting > 0
              ? 'Working out the results …'
              : isAsking
                ? 'Looking at the runs …'
                : 'Outline of a lab report'}
          </Button>
          {newBlocks.map(({ title, called, block }) => (
            <Button key={title} variant="plain" onClick={() => notebook.add(block, called)}>
              {title}
            </Button>
          ))}
        </div>
      )}
      {listed.length > 0 && (
        <p className="quiet">
          The outline is filled with what is known: sensors and settings, runs with their conditions, results.
        </p>
      )}
    </div>
  );
}
