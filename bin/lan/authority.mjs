/**
 * A certificate authority of this machine's own, so that a phone that trusts it takes the bench for a safe address.
 * Its key is readable by its owner alone and is never sent anywhere.
 */
import { generateKeyPairSync } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import forge from 'node-forge';

const { pki } = forge;
const day = 86_400_000;

/** Node makes keys many times as fast as the library does. */
function newKey() {
  const { privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 });
  return pki.privateKeyFromPem(privateKey.export({ type: 'pkcs1', format: 'pem' }));
}

/** Serial numbers are positive and never come twice. */
const serial = () => `01${forge.util.bytesToHex(forge.random.getBytesSync(15))}`;

function certificate({ key, subject, days }) {
  const made = pki.createCertificate();
  made.publicKey = pki.setRsaPublicKey(key.n, key.e);
  made.serialNumber = serial();
  // A clock that is a little behind must not find it not yet valid.
  made.validity.notBefore = new Date(Date.now() - day);
  made.validity.notAfter = new Date(Date.now() + days * day);
  made.setSubject(subject);
  return made;
}

const names = (commonName) => [
  { name: 'commonName', value: commonName },
  { name: 'organizationName', value: 'Fickle Ribbon, this computer only' },
];

/** The authority of this machine; made once and kept. */
export function authority(folder) {
  const [keyFile, certFile] = [join(folder, 'authority.key'), join(folder, 'authority.crt')];
  if (existsSync(keyFile) && existsSync(certFile)) {
    const key = pki.privateKeyFromPem(readFileSync(keyFile, 'utf8'));
    const made = pki.certificateFromPem(readFileSync(certFile, 'utf8'));
    if (made.validity.notAfter > new Date(Date.now() + 30 * day)) return { key, made, certFile };
  }
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const key = newKey();
  const made = certificate({ key, subject: names('Fickle Ribbon local authority'), days: 1825 });
  made.setIssuer(made.subject.attributes);
  made.setExtensions([
    { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
    { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    { name: 'subjectKeyIdentifier' },
  ]);
  made.sign(key, forge.md.sha256.create());
  writeFileSync(keyFile, pki.privateKeyToPem(key), { mode: 0o600 });
  chmodSync(keyFile, 0o600);
  writeFileSync(certFile, pki.certificateToPem(made));
  return { key, made, certFile };
}

/**
 * A certificate for some addresses, signed by the authority. Phones take none that is valid for longer than 825 days.
 * @returns PEM texts for a server
 */
export function serverCertificate({ key: signer, made: issuer }, addresses) {
  const key = newKey();
  const made = certificate({ key, subject: names('Fickle Ribbon'), days: 397 });
  made.setIssuer(issuer.subject.attributes);
  made.setExtensions([
    { name: 'basicConstraints', cA: false, critical: true },
    { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, critical: true },
    { name: 'extKeyUsage', serverAuth: true },
    {
      name: 'subjectAltName',
      altNames: [{ type: 2, value: 'localhost' }, ...addresses.map((address) => ({ type: 7, ip: address }))],
    },
    { name: 'authorityKeyIdentifier', keyIdentifier: issuer.generateSubjectKeyIdentifier().getBytes() },
  ]);
  made.sign(signer, forge.md.sha256.create());
  const pem = pki.privateKeyToPem(key);
  return { key: pem, cert: pki.certificateToPem(made) + pki.certificateToPem(issuer) };
}
