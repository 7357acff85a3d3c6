<script setup lang="ts">
import StatusLine from './shared/StatusLine.vue'
import ConflictDialog from './shared/ConflictDialog.vue'
</script>

<template>
  <BApp>
    <RouterView />
    <StatusLine />
    <ConflictDialog />
  </BApp>
</template>
