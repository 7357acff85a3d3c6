<script setup lang="ts">
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import { answer, api } from '../../api/client'
import { passkeysHere, provePasskey } from './passkeys'
import { beginAnew, useMe } from './queries'

/** The door of a household: a name and a password. */
const { data: me } = useMe()
const route = useRoute()
const name = ref('')
const password = ref('')
const problem = ref('')
const busy = ref(false)

const forgot = ref(false)
const code = ref('')
const signIn = () =>
  enter(() => answer(api.POST('/api/sign-in', { body: { name: name.value, password: password.value } })))
const withPasskey = () =>
  enter(async () => {
    const { options } = await answer(api.POST('/api/sign-in/passkey-options'))
    await answer(api.POST('/api/sign-in/passkey', { body: { credential: await provePasskey(options) } }))
  })
const recover = () =>
  enter(() =>
    answer(api.POST('/api/recover', { body: { name: name.value, code: code.value, wanted: password.value } })),
  )

async function enter(ask: () => Promise<unknown>) {
  busy.value = true
  problem.value = ''
  try {
    await ask()
    beginAnew(((route.query.to as string | undefined) ?? '/') + window.location.hash)
  } catch (refused) {
    problem.value = (refused as Error).message
    password.value = ''
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="door container py-5">
    <h1 class="mb-3"><img src="/favicon.svg" alt="" width="44" height="44" class="me-2" />Zesty Pocket</h1>
    <section v-if="me?.state === 'setUp'" class="room-panel">
      <h2 class="h5">No account yet</h2>
      <p class="mb-0">Open the link that ./start shows in its terminal: with it you make the first account.</p>
    </section>
    <form v-else-if="forgot" class="room-panel" @submit.prevent="recover">
      <h2 class="h5">Set another password</h2>
      <p v-if="problem" class="warning-chip" role="alert">! {{ problem }}</p>
      <label for="recover-name" class="form-label mb-0">Name</label>
      <BFormInput id="recover-name" v-model="name" autocomplete="username" required maxlength="80" class="mb-2" />
      <label for="recover-code" class="form-label mb-0">One of your recovery codes</label>
      <BFormInput id="recover-code" v-model="code" autocomplete="one-time-code" required class="mb-2" />
      <label for="recover-wanted" class="form-label mb-0">New password, at least ten characters</label>
      <BFormInput
        id="recover-wanted"
        v-model="password"
        type="password"
        autocomplete="new-password"
        minlength="10"
        required
        class="mb-3"
      />
      <BButton type="submit" variant="primary" :disabled="busy">Set password</BButton>
      <BButton variant="link" :disabled="busy" @click="forgot = false">Back</BButton>
      <p class="visually-quiet small mt-3 mb-0">
        Without codes ask whoever runs the program for a link to another account; your albums stay with the old one.
      </p>
    </form>
    <form v-else class="room-panel" @submit.prevent="signIn">
      <h2 class="h5">Sign in</h2>
      <p v-if="problem" class="warning-chip" role="alert">! {{ problem }}</p>
      <label for="sign-in-name" class="form-label mb-0">Name</label>
      <BFormInput id="sign-in-name" v-model="name" autocomplete="username" required maxlength="80" class="mb-2" />
      <label for="sign-in-password" class="form-label mb-0">Password</label>
      <BFormInput
        id="sign-in-password"
        v-model="password"
        type="password"
        autocomplete="current-password"
        required
        class="mb-3"
      />
      <BButton type="submit" variant="primary" :disabled="busy">Sign in</BButton>
      <BButton v-if="passkeysHere()" variant="outline-dark" class="ms-2" :disabled="busy" @click="withPasskey">
        Use a passkey
      </BButton>
      <BButton variant="link" :disabled="busy" @click="forgot = true">I forgot my password</BButton>
    </form>
  </main>
</template>

<style scoped>
.door {
  max-width: 28rem;
}
</style>
