DROP TABLE record_switches;
DROP TABLE ledger_lines;
