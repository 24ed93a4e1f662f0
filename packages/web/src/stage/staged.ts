import { type Device } from '@heuristor/contracts';
import { useEffect, useState } from 'react';
import { live } from '../api/live';
import { type SceneValues } from './scene';

/** An apparatus with the devices in front of it. */
export interface StagedScene {
  apparatus: string;
  title: string;
  devices: Device[];
}

/** Every apparatus that stands in front of a device on the link. Several devices may stand in front of one. */
export function scenesOf(devices: readonly Device[]): StagedScene[] {
  const scenes = new Map<string, StagedScene>();
  for (const device of devices) {
    if (device.stage === null || !device.present) continue;
    const { apparatus, title } = device.stage;
    const scene = scenes.get(apparatus);
    if (scene === undefined) scenes.set(apparatus, { apparatus, title, devices: [device] });
    else scene.devices.push(device);
  }
  // Devices come in any order; a scene looks the same every time.
  for (const scene of scenes.values()) scene.devices.sort((a, b) => (a.code < b.code ? -1 : 1));
  return [...scenes.values()].sort((a, b) => (a.title < b.title ? -1 : 1));
}

/** How an apparatus stands, as each of its devices says; empty until one has. */
export function useSaidOf(scene: StagedScene | undefined): Record<string, SceneValues> {
  const apparatus = scene?.apparatus;
  const codes = scene?.devices.map(({ code }) => code).join(' ') ?? '';
  const [said, setSaid] = useState<{ of: string; by: Record<string, SceneValues> } | null>(null);
  useEffect(() => {
    if (apparatus === undefined) return;
    live.watchStage(apparatus);
    const mine = codes.split(' ');
    const stop = live.onMessage((message) => {
      if (message.type !== 'scene' || !mine.includes(message.code)) return;
      setSaid((before) => ({
        of: apparatus,
        by: { ...(before?.of === apparatus ? before.by : {}), [message.code]: message.values },
      }));
    });
    return () => {
      stop();
      live.watchStage(null);
    };
  }, [apparatus, codes]);
  return said !== null && said.of === apparatus ? said.by : {};
}
