import { useMemo } from 'react';
import { Button, Form } from 'react-bootstrap';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { type GateSetting, gateSetting, notTyped, withPassage, withSpokes } from './gate';
import { nameIn } from '@heuristor/core';
import { type Passage, passages } from './passages';
import { NumberField } from '../../ui/NumberField';
import { QuantityField } from '../../ui/QuantityField';

/** What passes the gate and how long it is: typed before or after, every result follows. */
export function WhatPasses({ beams }: { beams: readonly string[] }) {
  const session = useInvestigation();
  const workings = useDocuments((documents) => documents.workings);
  const setting = useMemo(() => gateSetting(workings), [workings]);
  const choose = (passage: Passage, chosen: readonly string[]) =>
    session.changeWorkings((sheet) => withPassage(sheet, session.onPage, passage, chosen));
  if (setting === null)
    return (
      <div className="what-passes">
        <h2>What passes the gate?</h2>
        <div className="passage-choices">
          {passages
            .filter((passage) => passage.beams <= beams.length)
            .map((passage) => (
              <Button key={passage.key} variant="plain" onClick={() => choose(passage, beams)}>
                {passage.title}
              </Button>
            ))}
        </div>
      </div>
    );
  return <Sentence beams={beams} setting={setting} choose={choose} />;
}

interface SentenceProps {
  beams: readonly string[];
  setting: GateSetting;
  choose: (passage: Passage, beams: readonly string[]) => void;
}

/** "A flag or a ball of 25.0 ± 0.1 mm passes beam A." */
function Sentence({ beams, setting, choose }: SentenceProps) {
  const session = useInvestigation();
  const { passage, length, spokes, beams: chosen } = setting;
  const keys = chosen.map(nameIn);
  const [flag] = setting.entries;
  const selectBeam = (place: number, label: string) => (
    <Form.Select
      size="sm"
      className="w-auto"
      aria-label={label}
      value={keys[place]}
      onChange={(event) => choose(passage, keys.with(place, event.target.value))}
    >
      {[...new Set([...beams, ...keys])].map((key) => (
        <option key={key} value={key}>
          beam {key}
        </option>
      ))}
    </Form.Select>
  );
  return (
    <div className="what-passes sentence-row">
      <Form.Select
        size="sm"
        className="w-auto"
        aria-label="What passes the gate"
        value={passage.key}
        onChange={(event) => {
          const wanted = passages.find(({ key }) => key === event.target.value);
          if (wanted !== undefined) choose(wanted, wanted.beams === 2 ? beams : keys);
        }}
      >
        {passages
          .filter((candidate) => candidate.beams <= beams.length || candidate === passage)
          .map(({ key, title }) => (
            <option key={key} value={key}>
              {title}
            </option>
          ))}
      </Form.Select>
      <span>passes</span>
      {selectBeam(0, 'Beam')}
      {passage.beams === 2 && (
        <>
          <span>and</span>
          {selectBeam(1, 'Other beam')}
        </>
      )}
      {passage.length !== null && length !== null && (
        <span className="length-of">
          <span className="quiet">{passage.length.called}</span>
          <QuantityField
            label={passage.length.called}
            value={length.value === notTyped ? null : length.value}
            placeholder="?"
            autoFocus={length.value === notTyped}
            unit={length.unit}
            check={(value) => (value > 0 ? null : 'A length is more than 0.')}
            onCommit={(value) => session.changeEntry(length.id, { value })}
          />
          <span>±</span>
          <QuantityField
            label={`Uncertainty of the ${passage.length.called}`}
            value={length.uncertainty}
            unit={length.unit}
            check={(value) => (value >= 0 ? null : 'An uncertainty is not negative.')}
            onCommit={(uncertainty) => session.changeEntry(length.id, { uncertainty })}
          />
        </span>
      )}
      {flag?.kind === 'flagSpeed' && (
        <span
          className="length-of"
          title="A ball that does not pass through the middle of the beam blocks it with less than its diameter. 0 of a flag."
        >
          <span className="quiet">off the middle by up to</span>
          <QuantityField
            label="How far a ball passes off the middle of the beam at most"
            value={flag.offCentre ?? 0}
            unit="mm"
            check={(value) => (value >= 0 ? null : 'A distance is not negative; type 0 for a flag.')}
            onCommit={(offCentre) => session.changeEntry(flag.id, { offCentre })}
          />
        </span>
      )}
      {passage.key === 'wheel' && (
        <span className="length-of">
          <span className="quiet">spokes</span>
          <NumberField
            label="Number of spokes"
            value={spokes}
            check={(value) =>
              Number.isInteger(value) && value >= 1 && value <= 1000
                ? null
                : 'Type a whole number from 1 to 1000.'
            }
            onCommit={(number) => session.changeWorkings((sheet) => withSpokes(sheet, number))}
          />
        </span>
      )}
    </div>
  );
}
