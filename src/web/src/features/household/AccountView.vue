<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api } from '../../api/client'
import { useBusy } from '../../shared/busy'
import { useNotices } from '../../shared/notices'
import { forgetTyped } from '../../shared/typed'
import PasskeysPanel from './PasskeysPanel.vue'
import { beginAnew, useAccount } from './queries'

/** One's own account: who else may come, another password, where one signed in. */
const { data: account, error } = useAccount()
const notices = useNotices()
const client = useQueryClient()
const link = ref('')
const current = ref('')
const wanted = ref('')

const { busy, run } = useBusy()
const makeLink = () =>
  run(async () => {
    const made = await answer(api.POST('/api/account-links'))
    link.value = window.location.origin + made.path
  })
const codes = ref<string[]>([])
const codesPassword = ref('')
const makeCodes = () =>
  run(async () => {
    codes.value = (
      await answer(api.POST('/api/account/recovery-codes', { body: { password: codesPassword.value } }))
    ).codes
    codesPassword.value = ''
    await client.invalidateQueries({ queryKey: ['me'] })
  })
const change = () =>
  run(async () => {
    await answer(api.POST('/api/account/password', { body: { current: current.value, wanted: wanted.value } }))
    current.value = wanted.value = ''
    notices.done('Changed the password. Every other session has ended.')
    await client.invalidateQueries({ queryKey: ['me'] })
  })
const signOut = (everywhere: boolean) =>
  run(async () => {
    await answer(everywhere ? api.POST('/api/sign-out-everywhere') : api.POST('/api/sign-out'))
    forgetTyped()
    beginAnew('/sign-in')
  })
const at = (instant: string) => new Date(instant).toLocaleString()
</script>

<template>
  <main class="container py-4" data-testid="account">
    <p><RouterLink to="/">Back to the shelf</RouterLink></p>
    <h1 class="h3">{{ account?.name ?? 'Account' }}</h1>
    <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
    <section class="room-panel mb-3" aria-labelledby="session-head">
      <h2 id="session-head" class="h5">This session</h2>
      <div class="d-flex gap-2">
        <BButton size="sm" variant="outline-dark" :disabled="busy" @click="signOut(false)">Sign out</BButton>
        <BButton size="sm" variant="outline-dark" :disabled="busy" @click="signOut(true)">Sign out everywhere</BButton>
      </div>
    </section>
    <p v-if="account?.isOperator"><RouterLink to="/operations">Operations: jobs, disk, refused sign-ins</RouterLink></p>
    <section class="room-panel mb-3" aria-labelledby="link-head">
      <h2 id="link-head" class="h5">Somebody else in the household</h2>
      <p>A link makes one account with a shelf of its own. It holds for seven days and is used once.</p>
      <BButton size="sm" variant="outline-dark" :disabled="busy" @click="makeLink">Make a link</BButton>
      <p v-if="link" class="mt-2 mb-0">
        <label for="account-link" class="form-label mb-0">Send this; it is shown only now</label>
        <BFormInput id="account-link" :model-value="link" size="sm" readonly />
      </p>
    </section>
    <section class="room-panel mb-3" aria-labelledby="password-head">
      <h2 id="password-head" class="h5">Password</h2>
      <form class="d-flex flex-wrap gap-2 align-items-end" @submit.prevent="change">
        <div>
          <label for="password-now" class="form-label mb-0">Password now</label>
          <BFormInput
            id="password-now"
            v-model="current"
            type="password"
            autocomplete="current-password"
            size="sm"
            required
          />
        </div>
        <div>
          <label for="password-wanted" class="form-label mb-0">New password, at least ten characters</label>
          <BFormInput
            id="password-wanted"
            v-model="wanted"
            type="password"
            autocomplete="new-password"
            minlength="10"
            size="sm"
            required
          />
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Change password</BButton>
      </form>
    </section>
    <PasskeysPanel :passkeys="account?.passkeys ?? []" />
    <section class="room-panel mb-3" aria-labelledby="codes-head">
      <h2 id="codes-head" class="h5">Recovery codes</h2>
      <p>
        Who forgets the password sets another one with a code. Each works once; {{ account?.recoveryCodes ?? 0 }} are
        left. Keep them on paper, away from this machine.
      </p>
      <form class="d-flex flex-wrap gap-2 align-items-end" @submit.prevent="makeCodes">
        <div>
          <label for="codes-password" class="form-label mb-0">Your password, for new codes</label>
          <BFormInput
            id="codes-password"
            v-model="codesPassword"
            type="password"
            autocomplete="current-password"
            size="sm"
            required
          />
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Make new codes</BButton>
      </form>
      <template v-if="codes.length">
        <p class="mt-2 mb-1">Write these down; they are shown only now, and older ones do not hold any more.</p>
        <ul class="codes" data-testid="codes">
          <li v-for="c in codes" :key="c">
            <code>{{ c }}</code>
          </li>
        </ul>
      </template>
    </section>
    <section v-if="account?.shares.length" class="room-panel mb-3" aria-labelledby="shares-head">
      <h2 id="shares-head" class="h5">Shares</h2>
      <ul class="list-unstyled mb-0" data-testid="shares">
        <li v-for="s in account.shares" :key="s.at">
          {{ at(s.at) }}: {{ s.album }}, {{ s.by ?? 'somebody with a private link' }} {{ s.what }}
        </li>
      </ul>
    </section>
    <section class="room-panel" aria-labelledby="sign-ins-head">
      <h2 id="sign-ins-head" class="h5">Sign-ins</h2>
      <ul class="list-unstyled mb-0">
        <li v-for="s in account?.signIns ?? []" :key="s.at">
          {{ at(s.at) }}: {{ s.what }}, from {{ s.from }}<strong v-if="!s.succeeded"> refused</strong>
        </li>
      </ul>
    </section>
  </main>
</template>

<style scoped>
.codes {
  columns: 2;
  max-width: 28rem;
  font-size: 1.05rem;
}
</style>
