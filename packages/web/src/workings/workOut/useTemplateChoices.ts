import { useMemo } from 'react';
import { useInvestigation, useInvestigationDocuments } from '../../investigation/context';
import { type Choice } from '../../ui/ChoicePalette';
import { useTemplates } from '../templates/templateActions';
import { lackingFor } from '../templates/templates';

/** The templates that are kept, to be put onto a sheet over runs. */
export function useTemplateChoices(ofRuns: boolean): Choice[] {
  const session = useInvestigation();
  const runs = useInvestigationDocuments((documents) => documents.runs);
  const { answer } = useTemplates(ofRuns);
  return useMemo(() => {
    if (!ofRuns) return [];
    return (answer ?? []).map((template): Choice => {
      const lacking = lackingFor(template, runs);
      return {
        key: `template ${template.id}`,
        group: 'Templates',
        title: template.name,
        words: template.about,
        about:
          lacking.length === 0
            ? template.about
            : `for other sensors: ${lacking.map(({ quantity }) => quantity).join(' and ')}`,
        isUsual: false,
        take: () => void session.templates.use(template),
      };
    });
  }, [session, ofRuns, runs, answer]);
}
