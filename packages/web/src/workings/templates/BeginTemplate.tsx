import { useEffect, useRef } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { z } from 'zod';
import { useInvestigation } from '../../investigation/context';
import { useTemplates } from './templateActions';

const stateSchema = z.object({ template: z.string() });

/** Puts the template onto a new sheet that somebody chose to begin with. */
export function BeginTemplate() {
  const session = useInvestigation();
  const navigate = useNavigate();
  const { state, pathname } = useLocation();
  const chosen = stateSchema.safeParse(state).data?.template ?? null;
  const { answer: templates } = useTemplates(chosen !== null);
  const isPut = useRef(false);
  const template = templates?.find(({ id }) => id === chosen);
  useEffect(() => {
    if (template === undefined || isPut.current) return;
    isPut.current = true;
    void session.templates.use(template);
    // Whoever loads the page again has it on the sheet already.
    void navigate(pathname, { replace: true, state: null });
  }, [session, template, navigate, pathname]);
  return null;
}
