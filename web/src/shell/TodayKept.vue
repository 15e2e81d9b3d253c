<script setup lang="ts">
import { useToday } from '../stations/today/useToday';

/** Shows nothing: has this browser's own list of what is to be done go on following, whatever page is open. */
useToday();
</script>

<template><slot /></template>
