import { api } from "../contract";
import type { DoorView } from "../contract/workshop";
import QRCode from "qrcode";
import { changeDevice, devicesIn, hasPassphrase, newPairing, setPassphrase, signOut, signOutAll } from "./door";
import { GATE_HEADER, gateState, lanUrl, tendGate, TRUST_PATH } from "./gate";
import { parseOrRefuse } from "./parse";
import { Refusal } from "./refusal";
import { setListen } from "./settings";
import type { Workshop } from "./workshop";

/** True for a request made on the machine the workshop runs on, false for one that came through the gate. */
export const atFirstMachine = (request: Request): boolean => !request.headers.has(GATE_HEADER);

function onlyThere(first: boolean): void {
  if (!first) throw new Refusal(403, "first-machine", "The door is set up on the first machine only, not from the network.");
}

export const doorState = (w: Workshop, first: boolean): DoorView => ({
  ...gateState(w),
  first,
  url: lanUrl("/"),
  trustUrl: lanUrl(TRUST_PATH),
  devices: first ? devicesIn(w) : [],
});

/** Turns listening on or off, and sets the passphrase. Without a passphrase nothing listens. */
export async function setDoor(w: Workshop, first: boolean, body: unknown): Promise<DoorView> {
  onlyThere(first);
  const ask = parseOrRefuse(api.door.set.in, body);
  if (ask.passphrase !== undefined) await setPassphrase(w, { passphrase: ask.passphrase });
  if (ask.listen && !hasPassphrase(w)) throw new Refusal(422, "no-passphrase", "Set a passphrase first: every device on the network stands behind it.");
  if (ask.listen !== undefined) setListen(w, ask.listen);
  await tendGate(w);
  return doorState(w, first);
}

export function shutDoor(w: Workshop, first: boolean): DoorView {
  onlyThere(first);
  signOutAll(w);
  return doorState(w, first);
}

/** A code for one device, as an address and as a picture to hold the device up to. */
export async function pairingCode(w: Workshop, first: boolean, body: unknown = {}): Promise<{ url: string; svg: string; until: number }> {
  onlyThere(first);
  const { may } = parseOrRefuse(api.door.pair.in, body);
  const { open } = gateState(w);
  const base = lanUrl("/door");
  if (!open || !base) throw new Refusal(422, "not-listening", "Turn listening on first, on a machine with a network.");
  const { code, until } = newPairing(w, may);
  const url = `${base}?pair=${code}`;
  return { url, until, svg: await QRCode.toString(url, { type: "svg", margin: 2, errorCorrectionLevel: "M" }) };
}

/** Gives a device another name or other rights. */
export function setDevice(w: Workshop, first: boolean, id: string, body: unknown): DoorView {
  onlyThere(first);
  changeDevice(w, id, parseOrRefuse(api.door.device.in, body));
  return doorState(w, first);
}

export function signOutDevice(w: Workshop, first: boolean, id: string): DoorView {
  onlyThere(first);
  signOut(w, id);
  return doorState(w, first);
}
