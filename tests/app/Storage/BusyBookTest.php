<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Storage;

use Ortholex\App\Storage\Backup\Restoring;
use Ortholex\Tests\app\AppCase;

/** Another program holds the book: pages are read, writes are refused in words, and come later. */
final class BusyBookTest extends AppCase
{
    public function testWhatIsHeldBySomebodyElseIsReadAndNotWritten(): void
    {
        $row = $this->entities()->getConnection()->fetchAssociative('PRAGMA database_list');
        self::assertIsString($row['file'] ?? null);
        $other = new \SQLite3($row['file']);
        $other->exec('BEGIN IMMEDIATE');
        $said = $this->post('/craft/curlew/put-away', [], 503)['error'] ?? '';
        self::assertIsString($said);
        self::assertStringContainsString('The book is busy', $said);
        self::assertStringNotContainsString('SQLSTATE', $said);
        foreach (['/', '/craft/curlew/11', '/craft/curlew/61', '/craft/curlew/73'] as $page) {
            $this->browser->request('GET', $page);
            self::assertResponseIsSuccessful($page);
        }
        $other->exec('ROLLBACK');
        $this->post('/craft/curlew/put-away');
        self::assertStringContainsString('put away', $this->page('/'));
    }

    public function testWhileABackupIsBroughtBackEveryAddressSaysSo(): void
    {
        $restoring = new Restoring(self::data());
        $restoring->begin('/kept');
        foreach (['/', '/craft/curlew/11', '/craft/curlew/live.json', '/health'] as $address) {
            $this->browser->request('GET', $address);
            self::assertResponseStatusCodeSame(503, $address);
            self::assertResponseHeaderSame('Retry-After', '2');
            self::assertStringContainsString('A backup is just being brought back', (string) $this->browser->getResponse()->getContent());
        }
        $this->post('/craft/curlew/put-away', [], 503);
        $restoring->end();
        $this->page('/craft/curlew/11');
    }
}
