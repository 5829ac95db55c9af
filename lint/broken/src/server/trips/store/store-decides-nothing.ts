import '../sql-in-store';
