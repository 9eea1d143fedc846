<?php

declare(strict_types=1);

// Prints the measures of the house and ends with 1 where one does not hold; run by `bin/test house`.

use Ortholex\Tests\House\House;

$root = dirname(__DIR__, 2);
require $root.'/vendor/autoload.php';

/** @param list<string> $found */
function held(string $what, array $found, int $most = 0): bool
{
    printf("%-66s %4d   most %d\n", $what, count($found), $most);
    if (count($found) <= $most) {
        return true;
    }
    echo '  '.implode("\n  ", $found)."\n";

    return false;
}

$house = House::at($root);
$long = $house->longFunctions('core', 'bench');
$held = [
    held('rings of folders in core', $house->cycles('core')),
    held('rings of folders in bench', $house->cycles('bench')),
    held('folders of core, bench and src with more than '.House::MOST_FILES.' files', $house->crowded('core', 'bench', 'src')),
    held('lines over '.House::LONGEST_LINE.' characters in core, bench, src and tests', $house->longLines('core', 'bench', 'src', 'tests')),
    held('strings that stand for kinds in core and bench', $house->stringKinds('core', 'bench')),
    held('sentences in core, outside exceptions', $house->sentences('core')),
    held('numbers of sheets in core', $house->sheets('core')),
    held('functions over '.House::MOST_LINES_OF_A_FUNCTION.' lines in core and bench', array_keys($long), House::MOST_LONG_FUNCTIONS),
    held('  without a written reason', array_keys(array_filter($long, static fn (string $why): bool => '' === $why))),
];
foreach ($long as $where => $why) {
    echo "  $where: ".('' === $why ? 'no reason is written' : $why)."\n";
}
$holds = !in_array(false, $held, true);
echo $holds ? "the house holds\n" : "the house does not hold\n";
exit($holds ? 0 : 1);
