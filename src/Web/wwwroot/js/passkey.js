// Passkeys: the browser asks its device, and what the device says goes with the form.
export const attach = (root) => {
  for (const form of root.querySelectorAll('form[data-passkey]')) {
    const go = form.querySelector('[data-passkey-go]');
    if (!window.PublicKeyCredential?.parseCreationOptionsFromJSON) {
      go.disabled = true;
      go.title = 'This browser has no passkeys, or the app is not served over https.';
      continue;
    }
    go.addEventListener('click', async () => {
      try {
        const answer = await fetch(form.dataset.passkeyOptions);
        const options = await answer.json();
        const credential =
          form.dataset.passkey === 'create'
            ? await navigator.credentials.create({ publicKey: PublicKeyCredential.parseCreationOptionsFromJSON(options) })
            : await navigator.credentials.get({ publicKey: PublicKeyCredential.parseRequestOptionsFromJSON(options) });
        if (!credential) return;
        form.querySelector('[name="Credential"]').value = JSON.stringify(credential.toJSON());
        form.requestSubmit();
      } catch {
        // The person turned away, or the device could not: nothing was sent, and the button can be pressed again.
      }
    });
  }
};
