import { useState } from 'react';
import { Button, Form, Modal } from 'react-bootstrap';
import { useStore } from 'zustand';
import { useInvestigation } from '../../investigation/context';
import { type Alike, looksLike } from './templateConditions';

/** Asks whether what a template speaks of is what is said of each run already. */
export function TemplateQuestion() {
  const { templates } = useInvestigation();
  const { asked } = useStore(templates.question);
  return asked === null ? null : (
    <Asked key={asked.template.id} name={asked.template.name} alikes={asked.alikes} />
  );
}

function Asked({ name, alikes }: { name: string; alikes: readonly Alike[] }) {
  const { templates } = useInvestigation();
  const [taken, setTaken] = useState<readonly Alike[]>(alikes.filter(looksLike));
  return (
    <Modal show onHide={() => templates.answer(null)} aria-labelledby="template-asks" animation={false}>
      <Modal.Header closeButton>
        <Modal.Title id="template-asks">“{name}” uses what you may have already</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            templates.answer(taken);
          }}
        >
          {alikes.map((alike, i) => (
            <Form.Check
              key={`${alike.symbol} ${alike.constantId ?? ''}`}
              id={`alike-${i}`}
              className="mb-2"
              label={
                <>
                  <em>{alike.symbol}</em> is the condition “{alike.condition.name}” of each run
                </>
              }
              checked={taken.includes(alike)}
              onChange={({ target }) =>
                setTaken(target.checked ? [...taken, alike] : taken.filter((one) => one !== alike))
              }
            />
          ))}
          <p className="quiet small">
            What is not ticked is added as the template has it: a constant of the sheet, or one more
            condition.
          </p>
          <Button type="submit" variant="act" autoFocus>
            Put it on the sheet
          </Button>
        </Form>
      </Modal.Body>
    </Modal>
  );
}
