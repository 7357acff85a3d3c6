<script setup lang="ts">
import { ref } from 'vue'
import { answer, api, type PasskeyView } from '../../api/client'
import { useBusy } from '../../shared/busy'
import { byName, makePasskey, passkeysHere } from './passkeys'

/** The passkeys of one's account: devices that sign in without a password. */
defineProps<{ passkeys: PasskeyView[] }>()
const name = ref('')
const password = ref('')
const here = passkeysHere()

const { busy, run } = useBusy(() => ['me'])
const add = () =>
  run(async () => {
    const { options } = await answer(api.POST('/api/account/passkey-options', { body: { password: password.value } }))
    const credential = await makePasskey(options)
    await answer(api.POST('/api/account/passkeys', { body: { name: name.value, credential } }))
    const added = name.value
    name.value = password.value = ''
    return `Added the passkey “${added}”.`
  })
const remove = (passkey: PasskeyView) =>
  run(async () => {
    await answer(api.DELETE('/api/account/passkeys/{id}', { params: { path: { id: passkey.id } } }))
    return `Removed the passkey “${passkey.name}”. It signs nobody in any more.`
  })
</script>

<template>
  <section class="room-panel mb-3" aria-labelledby="passkeys-head">
    <h2 id="passkeys-head" class="h5">Passkeys</h2>
    <p>A passkey signs you in by the finger, face or PIN of a device, without a password.</p>
    <ul v-if="passkeys.length" class="list-unstyled" data-testid="passkeys">
      <li v-for="p in passkeys" :key="p.id" class="d-flex gap-2 align-items-center mb-1">
        <span>{{ p.name }}, since {{ new Date(p.madeAt).toLocaleDateString() }}</span>
        <BButton size="sm" variant="outline-dark" :disabled="busy" :aria-label="`Remove ${p.name}`" @click="remove(p)">
          Remove
        </BButton>
      </li>
    </ul>
    <form v-if="here" class="d-flex flex-wrap gap-2 align-items-end" @submit.prevent="add">
      <div>
        <label for="passkey-name" class="form-label mb-0">Name of the device</label>
        <BFormInput id="passkey-name" v-model="name" size="sm" maxlength="60" required />
      </div>
      <div>
        <label for="passkey-password" class="form-label mb-0">Your password</label>
        <BFormInput
          id="passkey-password"
          v-model="password"
          type="password"
          autocomplete="current-password"
          size="sm"
          required
        />
      </div>
      <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Add a passkey</BButton>
    </form>
    <p v-else class="mb-0">
      A passkey belongs to a name, and this page was opened by an address or by a browser that has none.
      <template v-if="byName()">
        Open it by its name to add one: <a :href="`${byName()}/account`">{{ byName() }}</a>
      </template>
    </p>
  </section>
</template>
