<script setup lang="ts">
import { ref } from 'vue'
import { answer, api } from '../../api/client'
import { beginAnew } from './queries'
import { useSecret } from './secret'

/** Makes an account by way of a link; its secret is after the # and goes to the server with the form only. */
const secret = useSecret()
const name = ref('')
const password = ref('')
const again = ref('')
const problem = ref('')
const busy = ref(false)

async function make() {
  problem.value = password.value === again.value ? '' : 'The two passwords are not the same. Type them again.'
  if (problem.value) return
  busy.value = true
  try {
    await answer(api.POST('/api/accounts', { body: { secret, name: name.value, password: password.value } }))
    beginAnew()
  } catch (refused) {
    problem.value = (refused as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="door container py-5">
    <h1 class="mb-3"><img src="/favicon.svg" alt="" width="44" height="44" class="me-2" />Zesty Pocket</h1>
    <form class="room-panel" @submit.prevent="make">
      <h2 class="h5">Make your account</h2>
      <p v-if="!secret" class="warning-chip" role="alert">
        ! This address is not the whole link. Open it as it was sent.
      </p>
      <p v-if="problem" class="warning-chip" role="alert">! {{ problem }}</p>
      <label for="new-name" class="form-label mb-0">Name</label>
      <BFormInput id="new-name" v-model="name" autocomplete="username" required maxlength="80" class="mb-2" />
      <label for="new-password" class="form-label mb-0">Password, at least ten characters</label>
      <BFormInput
        id="new-password"
        v-model="password"
        type="password"
        autocomplete="new-password"
        minlength="10"
        required
        class="mb-2"
      />
      <label for="new-password-again" class="form-label mb-0">The same password again</label>
      <BFormInput
        id="new-password-again"
        v-model="again"
        type="password"
        autocomplete="new-password"
        required
        class="mb-3"
      />
      <BButton type="submit" variant="primary" :disabled="busy || !secret">Make account</BButton>
    </form>
  </main>
</template>

<style scoped>
.door {
  max-width: 28rem;
}
</style>
