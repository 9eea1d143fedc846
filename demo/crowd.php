<?php

declare(strict_types=1);

// Makes one craft's logs a thousand, by writing its newest again under other numbers; run by `bin/bench crowd` before the server starts.

[, $book, $most] = $argv;
$db = new SQLite3($book);
$db->enableExceptions(true);
$craft = (int) $db->querySingle("SELECT id FROM craft WHERE slug = 'curlew'");
$there = (int) $db->querySingle("SELECT COUNT(*) FROM log WHERE craft_id = $craft");
$newest = (int) $db->querySingle("SELECT MAX(id) FROM log WHERE craft_id = $craft");
$columns = [];
$told = $db->query('PRAGMA table_info(log)');
while (false !== $told && is_array($row = $told->fetchArray(SQLITE3_ASSOC))) {
    if (is_string($row['name']) && !in_array($row['name'], ['id', 'code'], true)) {
        $columns[] = $row['name'];
    }
}
$names = implode(', ', $columns);
$db->exec('PRAGMA synchronous = OFF; BEGIN');
for ($n = $there + 1; $n <= (int) $most; ++$n) {
    $db->exec(sprintf("INSERT INTO log (code, $names) SELECT 'C-%04d', $names FROM log WHERE id = $newest", $n));
    $id = $db->lastInsertRowID();
    $db->exec("INSERT INTO log_chunk SELECT $id, trace, level, part, data FROM log_chunk WHERE log_id = $newest");
}
$db->exec('COMMIT');
printf("%-58s %8.2f GB\n", "the book with $most logs of 12 s", filesize($book) / 1e9);
