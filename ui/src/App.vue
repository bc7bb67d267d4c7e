<script setup lang="ts">
import NoticeList from './frame/NoticeList.vue'
</script>

<template>
    <RouterView />
    <NoticeList />
</template>
