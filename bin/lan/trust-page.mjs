/** The page that guides a phone through trusting this computer's authority; plain HTML, no script. */
export const trustPage = (address, fingerprint) => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Trust this bench</title>
<style>
body { margin: 0 auto; max-width: 34rem; padding: 1.2rem; background: #15182b; color: #efe6d6; font: 17px/1.5 sans-serif; }
h1 { font: 500 26px/1.2 serif; } h2 { font: 500 20px/1.3 serif; margin-top: 1.6rem; }
a.knob { display: block; box-sizing: border-box; min-height: 44px; padding: .7rem 1rem; margin: .6rem 0; border-radius: 3px; background: #efe6d6; color: #15182b; font-weight: 650; text-align: center; text-decoration: none; }
code { word-break: break-all; color: #cdc654; }
li { margin: .3rem 0; }
</style>
</head>
<body>
<h1>The bench on this phone</h1>
<p>The camera works without any of this: open the bench, let the browser go on although it does not know this computer, and film.</p>
<p><strong>Putting the bench on the home screen, and working where there is no network, need one more step</strong>: this phone has to trust the computer that the bench runs on. The certificate was made on that computer, and whoever has that computer’s key could vouch for any address with it: trust it only on your own phone, and only your own computer.</p>
<a class="knob" href="/authority.crt">1. Get the certificate</a>
<h2>2. Trust it on an iPhone or iPad</h2>
<ol>
<li>Settings → General → VPN &amp; Device Management → “Fickle Ribbon local authority” → Install.</li>
<li>Settings → General → About → Certificate Trust Settings → switch it on.</li>
</ol>
<h2>2. Trust it on an Android phone</h2>
<ol>
<li>Settings → Security → More → Encryption &amp; credentials → Install a certificate → CA certificate. (Searching the settings for “CA certificate” finds it too.)</li>
<li>Choose the file that was just saved.</li>
</ol>
<h2>3. Open it</h2>
<a class="knob" href="https://${address}/">Open the bench</a>
<p>Then “Add to home screen” in the browser’s menu. Its fingerprint, to compare with the one in the computer’s terminal:<br><code>${fingerprint}</code></p>
<p>When filming is over, take the certificate away again in the same place.</p>
</body>
</html>
`;
