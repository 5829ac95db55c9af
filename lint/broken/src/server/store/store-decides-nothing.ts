import '../usecases/sql-in-store';
