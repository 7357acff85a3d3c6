<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api } from '../../api/client'
import { beginAnew, useMe } from './queries'
import { useSecret } from './secret'

/** Takes an invitation to an album up: with the account one has, or with a new one. */
const secret = useSecret()
const { data: me } = useMe()
const { data: invited, error } = useQuery({
  queryKey: ['invitation', secret],
  queryFn: () => answer(api.POST('/api/invitations/look', { body: { secret } })),
  enabled: secret !== '',
  retry: false,
})
const busy = ref(false)
const problem = ref('')

async function join() {
  busy.value = true
  problem.value = ''
  try {
    const album = await answer(api.POST('/api/invitations/accept', { body: { secret } }))
    beginAnew(`/albums/${album.albumId}/place`)
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
    <p v-if="!secret" class="warning-chip" role="alert">
      ! This address is not the whole link. Open it as it was sent.
    </p>
    <p v-else-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
    <section v-else-if="invited" class="room-panel">
      <h2 class="h5">{{ invited.album }}</h2>
      <p>
        {{ invited.owner }} invites {{ invited.for }} as {{ invited.role === 'editor' ? 'an editor' : 'a reader' }}.
      </p>
      <p v-if="problem" class="warning-chip" role="alert">! {{ problem }}</p>
      <BButton v-if="me?.state === 'signedIn'" variant="primary" :disabled="busy" @click="join"
        >Join as {{ me.name }}</BButton
      >
      <div v-else class="d-flex flex-wrap gap-2">
        <a :href="`/welcome#${secret}`" class="btn btn-primary">Make an account</a>
        <a :href="`/sign-in?to=/join#${secret}`" class="btn btn-outline-dark">I have an account</a>
      </div>
    </section>
  </main>
</template>

<style scoped>
.door {
  max-width: 28rem;
}
</style>
