DROP TABLE photographs;
