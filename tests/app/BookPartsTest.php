<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Live\LiveSource;
use Ortholex\App\Book\Live\LiveState;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Sheet\SettingSheets;
use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;
use Ortholex\App\Book\Sheet\Sheets;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextSteps;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Routing\Generator\UrlGenerator;
use Symfony\Component\Routing\RequestContext;
use Symfony\Component\Routing\Route;
use Symfony\Component\Routing\RouteCollection;

/** How the book puts together what its sheets contribute, whoever they are. */
final class BookPartsTest extends TestCase
{
    public function testSheetsStandInTheOrderOfTheirNumbersWhoeverOffersThem(): void
    {
        $sheets = new Sheets([self::offer('73', '11'), self::offer('52'), self::offer('21', '51')]);
        self::assertSame([11, 21, 51, 52, 73], array_keys($sheets->all()));
        self::assertSame(['51', '52'], array_values(array_map(static fn (Sheet $s): string => $s->number, $sheets->ofPart(Part::Flights))));
        self::assertSame([], $sheets->ofPart(Part::Guard));
        self::assertSame(['11', '21', '51', '73'], array_map(static fn (Sheet $s): string => $s->number, $sheets->firsts()));
        self::assertSame('52', $sheets->numbered('52')->number);
    }

    public function testWhatIsBuiltTakesThePlaceOfWhatIsPlannedInEitherOrder(): void
    {
        $planned = self::offering(new Sheet('21', 'Receiver', '', 'planned', built: false));
        $built = self::offering(new Sheet('21', 'Receiver', '', 'receiver'));
        foreach ([[$planned, $built], [$built, $planned]] as $offers) {
            self::assertTrue((new Sheets($offers))->numbered('21')->built);
        }
    }

    public function testANumberThatNobodyOffersIsSaid(): void
    {
        $this->expectException(\OutOfBoundsException::class);
        $this->expectExceptionMessage('no sheet 99');
        (new Sheets([self::offer('11')]))->numbered('99');
    }

    public function testASettingLeadsToTheSheetThatClaimsTheFirstWordOfItsName(): void
    {
        $sheets = new Sheets([
            self::offering(new Sheet('61', 'Gains', '', 'sheet61', ['gain'])),
            self::offering(new Sheet('21', 'Receiver', '', 'sheet21', ['channel'], built: false)),
            self::offer('71'),
        ]);
        $routes = new RouteCollection();
        foreach (['61', '71', '21'] as $number) {
            $routes->add("sheet$number", new Route("/craft/{slug}/$number"));
        }
        $of = new SettingSheets($sheets, new UrlGenerator($routes, new RequestContext()));
        self::assertSame('61', $of->of('gain.roll.p')->number);
        self::assertSame('71', $of->of('gains.roll.p')->number, 'the whole word');
        self::assertSame('71', $of->of('channel.roll.low_us')->number, 'a sheet that is not built changes nothing');
        self::assertSame('71', $of->of('')->number);
        self::assertSame('/craft/curlew/61?setting=gain.roll.p', $of->address('curlew', 'gain.roll.p'));
    }

    public function testWhatPressesMostComesFirstAndEqualsKeepTheirOrder(): void
    {
        $steps = new NextSteps([
            self::needing([Urgency::Newer, 'a'], [Urgency::Stopped, 'b']),
            self::needing(),
            self::needing([Urgency::Stopped, 'c'], [Urgency::Unfinished, 'd'], [Urgency::Idle, 'e']),
        ]);
        self::assertSame(['d', 'b', 'c', 'a'], array_map(static fn (NextStep $s): string => $s->text, $steps->of(self::craft())));
    }

    public function testWhatIsForIdleHoursIsSaidOnlyThen(): void
    {
        $idle = self::needing([Urgency::Idle, 'fly']);
        self::assertCount(1, (new NextSteps([$idle]))->of(self::craft()));
        $both = new NextSteps([$idle, self::needing([Urgency::Newer, 'x'])]);
        $texts = array_map(static fn (NextStep $s): string => $s->text, $both->of(self::craft()));
        self::assertSame(['x'], $texts);
        self::assertSame([], (new NextSteps([]))->of(self::craft()));
    }

    public function testFactsOfTheMomentStandUnderTheNameOfTheirSource(): void
    {
        $live = new LiveState([self::telling('bench', ['cable' => true]), self::telling('staged', 3)]);
        self::assertSame(['bench' => ['cable' => true], 'staged' => 3], $live->of(self::craft()));
    }

    public function testEveryPartHasItsTitleAndANumberOfOneDigit(): void
    {
        self::assertCount(7, Part::cases());
        foreach (Part::cases() as $i => $part) {
            self::assertSame((string) ($i + 1), $part->value);
            self::assertSame($part, (new Sheet("{$part->value}1", '', '', ''))->part());
            self::assertNotSame('', $part->title());
        }
    }

    private static function craft(): Craft
    {
        return new Craft('curlew', 'Curlew', '', '', '', []);
    }

    private static function offer(string ...$numbers): SheetOffer
    {
        return self::offering(...array_map(static fn (string $n): Sheet => new Sheet($n, "Sheet $n", '', "sheet$n"), $numbers));
    }

    private static function offering(Sheet ...$sheets): SheetOffer
    {
        return new class(array_values($sheets)) implements SheetOffer {
            /** @param list<Sheet> $all */
            public function __construct(private array $all)
            {
            }

            public function sheets(): array
            {
                return $this->all;
            }
        };
    }

    /** @param array{Urgency, string} ...$needs */
    private static function needing(array ...$needs): NextStepSource
    {
        return new class(array_values($needs)) implements NextStepSource {
            /** @param list<array{Urgency, string}> $needs */
            public function __construct(private array $needs)
            {
            }

            public function steps(Craft $craft): iterable
            {
                foreach ($this->needs as [$urgency, $text]) {
                    yield new NextStep($urgency, $text, '/', 'Go');
                }
            }
        };
    }

    private static function telling(string $key, mixed $facts): LiveSource
    {
        return new class($key, $facts) implements LiveSource {
            public function __construct(private string $key, private mixed $facts)
            {
            }

            public function key(): string
            {
                return $this->key;
            }

            public function facts(Craft $craft): mixed
            {
                return $this->facts;
            }
        };
    }
}
