import { newTokenSchema, redeemPairingSchema } from '@heuristor/contracts';
import { Refusal, readSenml } from '@heuristor/core';
import cbor from 'cbor';
import { type Request, Router, raw } from 'express';
import { rateLimit } from 'express-rate-limit';
import { Failure } from '../failure';
import { type SenmlGateway } from '../senml/gateway';
import {
  type Pairings,
  deviceOfToken,
  listTokens,
  makeToken,
  markUsed,
  withdrawToken,
} from '../senml/tokens';
import { teacherIn } from './allowed';
import { bodyOf, textOf } from './validated';

const largestPack = '512kb';
const bearer = /^Bearer +([A-Za-z0-9_-]{10,200})$/i;

interface Parts {
  senml: SenmlGateway;
  pairings: Pairings;
}

/** Where devices bring their readings; a token lets them in, not a cookie. */
export function senmlRoutes({ senml, pairings }: Parts): Router {
  const router = Router();
  const limited = rateLimit({
    windowMs: 60_000,
    limit: 20,
    standardHeaders: true,
    legacyHeaders: false,
    handler: () => {
      throw new Failure('too-many-requests', 'Too many tries with a code. Wait a minute.');
    },
  });
  router.post('/phones', limited, async (request, response) => {
    const { code, name } = bodyOf(redeemPairingSchema, request);
    const { token, code: own } = await makeToken(pairings.redeem(code), name);
    response.status(201).json({ token, code: own });
  });
  router.post('/senml', raw({ type: () => true, limit: largestPack }), async (request, response) => {
    const token = bearer.exec(request.get('authorization') ?? '')?.[1];
    const device = token === undefined ? null : await deviceOfToken(token);
    if (device === null) {
      response.setHeader('WWW-Authenticate', 'Bearer');
      throw new Failure(
        'not-signed-in',
        'This device is not let in: its token is missing, unknown or revoked.',
      );
    }
    await senml.take(device.code, device.name, recordsIn(request));
    await markUsed(device.id);
    response.status(204).end();
  });
  return router;
}

/** What a teacher does with the devices that are let in. */
export function deviceTokenRoutes({ senml, pairings }: Parts): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await listTokens(teacherIn(response).school));
  });
  router.post('/', async (request, response) => {
    response
      .status(201)
      .json(await makeToken(teacherIn(response).school, bodyOf(newTokenSchema, request).name));
  });
  router.post('/pairing', (_request, response) => {
    response.status(201).json(pairings.make(teacherIn(response).school));
  });
  router.delete('/:id', async (request, response) => {
    const id = Number(textOf(request, 'id'));
    if (!Number.isInteger(id) || id < 1 || id > 2 ** 31 - 1)
      throw new Failure('not-found', 'There is no such device any more.');
    senml.forget(await withdrawToken(teacherIn(response).school, id));
    response.status(204).end();
  });
  return router;
}

/** The records of a request, by what it says that it holds. @throws Failure */
function recordsIn(request: Request) {
  const body: unknown = request.body;
  const bytes = Buffer.isBuffer(body) ? body : Buffer.alloc(0);
  const type = (request.get('content-type') ?? 'application/senml+json').split(';')[0].trim().toLowerCase();
  try {
    switch (type) {
      case 'application/senml+json':
      case 'application/json':
        return readSenml(JSON.parse(bytes.toString('utf8')));
      case 'application/senml+cbor':
      case 'application/cbor':
        return readSenml(cbor.decodeFirstSync(bytes, { preferMap: true }));
      default:
        throw new Failure(
          'unsupported',
          `“${type.slice(0, 60)}” is not understood. Send application/senml+json or application/senml+cbor.`,
        );
    }
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw new Failure(
      'invalid-request',
      error instanceof Refusal
        ? error.message
        : `The pack is not ${type.includes('cbor') ? 'CBOR' : 'JSON'}: ${error instanceof Error ? error.message.slice(0, 120) : ''}`,
    );
  }
}
