DROP TABLE job_sheets;
