<script setup lang="ts">
import { computed } from 'vue'
import { useNotices } from './notices'

const notices = useNotices()
const open = computed({
  get: () => notices.conflict !== null,
  set: (value: boolean) => {
    if (!value) notices.conflict = null
  },
})

async function again() {
  const conflict = notices.conflict
  notices.conflict = null
  try {
    await conflict?.again()
  } catch (error) {
    notices.refused(error)
  }
}
</script>

<template>
  <BModal
    v-model="open"
    title-tag="h2"
    title-class="h5 mb-0"
    title="Changed in another window"
    no-footer
    data-testid="conflict"
  >
    <template v-if="notices.conflict">
      <p>{{ notices.conflict.message }}</p>
      <h3 class="h6">In the other window</h3>
      <ul>
        <li v-for="(line, i) in notices.conflict.theirs" :key="i">{{ line }}</li>
      </ul>
      <h3 class="h6">Yours, not saved yet</h3>
      <ul>
        <li>{{ notices.conflict.yours }}</li>
      </ul>
      <div class="d-flex gap-2 justify-content-end">
        <BButton variant="outline-dark" @click="notices.conflict = null">Keep theirs</BButton>
        <BButton variant="primary" @click="again">Apply mine too</BButton>
      </div>
    </template>
  </BModal>
</template>
