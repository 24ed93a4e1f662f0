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

/** Space records, wherever the mouse has clicked; only where Tab has walked to a control does it press that. */
function isForRecorder(event: KeyboardEvent, walkedByKeyboard: boolean): boolean {
  const target = event.target;
  if (!(target instanceof HTMLElement)) return true;
  if (target.closest('input:not([type=range]), textarea, select, .dropdown-menu.show')) return false;
  return target === document.body || !walkedByKeyboard;
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
    // Not :focus-visible: a menu that closes gives its button a focus that counts as visible.
    let walkedByKeyboard = false;
    const onPointer = () => {
      walkedByKeyboard = false;
    };
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Tab') walkedByKeyboard = true;
      if (event.code !== 'Space' || event.repeat || !isForRecorder(event, walkedByKeyboard)) return;
      event.preventDefault();
      // A button that was clicked before would take the key's release as another press.
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
      void toggleRecording();
    };
    window.addEventListener('pointerdown', onPointer, true);
    window.addEventListener('keydown', onKey, true);
    return () => {
      window.removeEventListener('pointerdown', onPointer, true);
      window.removeEventListener('keydown', onKey, true);
    };
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
