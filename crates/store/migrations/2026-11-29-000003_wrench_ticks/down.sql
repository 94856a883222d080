DROP TABLE wrench_ticks;
