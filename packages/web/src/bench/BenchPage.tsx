import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useParams } from 'react-router';
import { NavLink } from 'react-router';
import { request } from '../api/client';
import { attempt, leaveBench, openBench, redo, toggleRecording, undo, useBench } from '../stores/bench';
import { Head } from '../ui/Head';
import { NameField } from '../ui/NameField';
import { Message } from '../home/SignInPage';
import { RecorderBar } from './RecorderBar';
import { RunShelf } from './RunShelf';
import { SensorColumn } from './SensorColumn';
import { TraceStack } from './TraceStack';
import { WorkingsColumn } from './WorkingsColumn';

/** Space records, wherever the mouse has clicked; only where the keyboard has walked to a control does it press that. */
function isForRecorder(event: KeyboardEvent): boolean {
  const target = event.target;
  if (!(target instanceof HTMLElement)) return true;
  if (target.closest('input:not([type=range]), textarea, select, [role=menu], .dropdown-menu')) return false;
  return target === document.body || !target.matches(':focus-visible');
}

export default function BenchPage() {
  const { id = '' } = useParams();
  const loading = useBench((state) => state.loading);
  const name = useBench((state) => state.name);
  useEffect(() => {
    void openBench(id);
    return leaveBench;
  }, [id]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.code !== 'Space' || event.repeat || !isForRecorder(event)) return;
      event.preventDefault();
      // A button that was clicked before would take the key's release as another press.
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
      void toggleRecording();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  useHotkeys('mod+z', undo, { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', redo, { preventDefault: true });
  useHotkeys('f', () => useBench.setState({ viewport: null }));
  useHotkeys('escape', () => useBench.setState({ selectedRegion: null }));
  if (loading === 'missing')
    return (
      <Message
        title="There is no such investigation"
        text="It may have been removed. Go back to the start page."
      />
    );
  const rename = (newName: string) => {
    useBench.setState({ name: newName });
    void attempt(() => request('PATCH', `/investigations/${id}`, { name: newName }));
  };
  return (
    <div className="page">
      <Head nav={<NavLink to={`/investigations/${id}`}>Bench</NavLink>}>
        <NameField label="Name of the investigation" className="title-input" value={name} onCommit={rename} />
      </Head>
      <div className="bench">
        <SensorColumn />
        <main className="middle">
          <RecorderBar />
          <TraceStack />
          <RunShelf />
        </main>
        <WorkingsColumn />
      </div>
    </div>
  );
}
