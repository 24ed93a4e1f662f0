import { type Template } from '@heuristor/contracts';
import { memo, useState } from 'react';
import { Button, Dropdown, Form, Modal } from 'react-bootstrap';
import { Trash3 } from 'react-bootstrap-icons';
import { useDialog, useDocuments, useInvestigation } from '../../investigation/context';
import { useTemplates } from './templateActions';
import { lackingFor } from './templates';
import { FixedMenu } from '../../ui/FixedMenu';

/** Sheets that were kept: put onto this one with a press. Those come first for which these runs have all that is needed. */
export const TemplateMenu = memo(function TemplateMenu() {
  const session = useInvestigation();
  const [isOpen, setOpen] = useState(false);
  const { answer: templates, fault } = useTemplates(isOpen);
  const isEmpty = useDocuments(({ workings }) => workings.entries.length === 0);
  return (
    <Dropdown align="end" onToggle={setOpen}>
      <Dropdown.Toggle variant="plain" className="no-caret">
        Templates
      </Dropdown.Toggle>
      <FixedMenu className="tall-menu template-menu">
        {/* Before the list: what comes later moves nothing under the hand. */}
        <Dropdown.Item disabled={isEmpty} onClick={() => session.dialogs.ask('template', true)}>
          Keep this sheet as a template …
        </Dropdown.Item>
        <Dropdown.Divider />
        {fault !== null && <Dropdown.ItemText className="text-danger">{fault}</Dropdown.ItemText>}
        {templates === null && fault === null && <Dropdown.ItemText>Asking for them …</Dropdown.ItemText>}
        {templates?.length === 0 && <Dropdown.ItemText>No sheet was kept yet.</Dropdown.ItemText>}
        {templates !== null && <TemplateItems templates={templates} />}
      </FixedMenu>
    </Dropdown>
  );
});

function TemplateItems({ templates }: { templates: readonly Template[] }) {
  const session = useInvestigation();
  const runs = useDocuments((documents) => documents.runs);
  const judged = templates.map((template) => ({ template, lacking: lackingFor(template, runs) }));
  const fitting = judged.filter(({ lacking }) => lacking.length === 0);
  const rest = judged.filter(({ lacking }) => lacking.length > 0);
  const item = ({ template, lacking }: (typeof judged)[number]) => (
    <Dropdown.Item key={template.id} onClick={() => void session.templates.use(template)}>
      <strong>{template.name}</strong>
      <span className="quiet">
        {lacking.length === 0
          ? template.about
          : `needs ${lacking.map(({ quantity }) => quantity).join(' and ')}`}
      </span>
    </Dropdown.Item>
  );
  return (
    <>
      {fitting.map(item)}
      {rest.length > 0 && <Dropdown.Header>For other sensors</Dropdown.Header>}
      {rest.map(item)}
    </>
  );
}

/** What stands where nothing was worked out yet: the templates that fit the runs that there are. */
export function FittingTemplates() {
  const session = useInvestigation();
  const { answer: templates } = useTemplates();
  const runs = useDocuments((documents) => documents.runs);
  const hasRuns = runs.some(({ removed }) => !removed);
  const fitting = hasRuns ? (templates ?? []).filter((one) => lackingFor(one, runs).length === 0) : [];
  if (fitting.length === 0) return null;
  return (
    <div className="fitting-templates" role="group" aria-label="Templates for these runs">
      <span className="quiet">Or begin with a template:</span>
      {fitting.map((template) => (
        <Button
          key={template.id}
          variant="plain"
          title={template.about}
          onClick={() => void session.templates.use(template)}
        >
          {template.name}
        </Button>
      ))}
    </div>
  );
}

/** Asks for the name of a new template, and lists those that there are. */
export function KeepTemplate() {
  return useDialog('template') === true ? <OpenDialog /> : null;
}

function OpenDialog() {
  const session = useInvestigation();
  const { answer: templates } = useTemplates();
  const [name, setName] = useState('');
  const [about, setAbout] = useState('');
  const { close } = session.dialogs;
  const isTaken = (templates ?? []).some((one) => one.name === name.trim());
  const canKeep = name.trim() !== '' && !isTaken;
  const keep = async () => {
    if (canKeep && (await session.templates.keep(name.trim(), about.trim()))) close();
  };
  return (
    <Modal show onHide={close} aria-labelledby="template-title" animation={false}>
      <Modal.Header closeButton>
        <Modal.Title id="template-title">Keep this sheet as a template</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Form
          className="template-form"
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <Form.Label htmlFor="template-name">Name</Form.Label>
          <Form.Control
            id="template-name"
            autoFocus
            maxLength={120}
            value={name}
            isInvalid={isTaken}
            onChange={({ target }) => setName(target.value)}
          />
          {isTaken && (
            <Form.Control.Feedback type="invalid">
              There is a template of that name. Choose another name, or remove that one below.
            </Form.Control.Feedback>
          )}
          <Form.Label htmlFor="template-about">What it is for</Form.Label>
          <Form.Control
            id="template-about"
            maxLength={300}
            placeholder="period of a swing and g from it"
            value={about}
            onChange={({ target }) => setAbout(target.value)}
          />
          <p className="quiet small">
            Kept are regions, series, fits, formulas, constants and traces. What belongs to single runs is
            not: readings that were set aside, runs that were moved.
          </p>
          <Button type="submit" variant="act" disabled={!canKeep}>
            Keep
          </Button>
        </Form>
        {(templates ?? []).length > 0 && (
          <ul className="template-list" aria-label="Templates that there are">
            {templates?.map((template) => (
              <li key={template.id}>
                <span>{template.name}</span>
                <Button
                  variant="bare"
                  aria-label={`Remove the template ${template.name}`}
                  onClick={() => void session.templates.remove(template)}
                >
                  <Trash3 aria-hidden />
                </Button>
              </li>
            ))}
          </ul>
        )}
      </Modal.Body>
    </Modal>
  );
}
