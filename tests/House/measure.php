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

$sources = ['core', 'bench', 'demo', 'src', 'config', 'migrations', 'templates', 'assets', 'tests'];
$house = House::at($root);
$long = $house->longFunctions('core', 'bench');
$held = [
    held('rings of folders in core', $house->cycles('core')),
    held('rings of folders in bench', $house->cycles('bench')),
    held('rings of folders in src', $house->cycles('src', 'App')),
    held('sheet families that know each other', $house->familiesThatKnowEachOther('src', 'Ortholex\\App', House::SHARED, ['SetUp'])),
    held('folders of core, bench and src with more than '.House::MOST_FILES.' files', $house->crowded('core', 'bench', 'src')),
    held('lines over '.House::LONGEST_LINE.' characters in all sources', $house->longLines(...$sources)),
    held('templates over '.House::MOST_LINES_OF_A_TEMPLATE.' lines', $house->longTemplates('templates')),
    held('pages reloaded by scripts', $house->said('~location\.reload~', '~\.js$~', 'assets')),
    held(
        'addresses in templates that are not asked of the router',
        $house->said('~(href|action|data-url)="/(?!favicon)~', '~\.twig$~', 'templates'),
    ),
    held('reduce and map chains in templates', $house->said('~\|\s*(reduce|map)\(~', '~\.twig$~', 'templates')),
    held('sheets known to scripts by number', $house->said('~(===|!==|\bincludes\() ?[\'"]?[1-7][1-6][\'"]~', '~\.js$~', 'assets')),
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
