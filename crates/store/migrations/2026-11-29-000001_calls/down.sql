DROP TABLE calls;
