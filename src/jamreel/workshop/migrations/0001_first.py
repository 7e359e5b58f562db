"""All tables of format 0.2, and the words of the log as SQLite searches them."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

# What of a log entry is searched, in SQLite's full text; triggers keep it beside the rows. Whose
# it is stands in it as a word, so that a bench is searched without looking at the others'.
WORDS = """
CREATE VIRTUAL TABLE workshop_logwords USING fts5(
    bench, words, tokenize="unicode61 remove_diacritics 0", prefix='2 3'
);
CREATE TRIGGER workshop_log_in AFTER INSERT ON workshop_logentry BEGIN
    INSERT INTO workshop_logwords (rowid, bench, words)
        VALUES (new.id, 'b' || new.workshop_id, new.words);
END;
CREATE TRIGGER workshop_log_out AFTER DELETE ON workshop_logentry BEGIN
    DELETE FROM workshop_logwords WHERE rowid = old.id;
END;
CREATE TRIGGER workshop_log_anew AFTER UPDATE ON workshop_logentry BEGIN
    DELETE FROM workshop_logwords WHERE rowid = old.id;
    INSERT INTO workshop_logwords (rowid, bench, words)
        SELECT new.id, 'b' || new.workshop_id, new.words
        WHERE new.opened_at IS NULL AND new.put_away_at IS NULL;
END;
"""
UNDONE = """
DROP TRIGGER workshop_log_anew; DROP TRIGGER workshop_log_out; DROP TRIGGER workshop_log_in;
DROP TABLE workshop_logwords;
"""


class Migration(migrations.Migration):

    initial = True

    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name='Piece',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=120)),
                ('due', models.DateField(blank=True, null=True)),
                ('version', models.PositiveIntegerField(default=1)),
                ('turn', models.PositiveIntegerField(default=0)),
                ('worked_by', models.CharField(blank=True, max_length=60)),
                ('waits_for', models.CharField(default='measure', max_length=20)),
                ('state', models.JSONField(default=dict)),
                ('created_at', models.DateTimeField(auto_now_add=True)),
                ('finished_at', models.DateTimeField(blank=True, null=True)),
                ('put_away_at', models.DateTimeField(blank=True, null=True)),
                ('at_step', models.CharField(blank=True, max_length=140)),
                ('in_hand_since', models.DateTimeField(blank=True, null=True)),
                ('hand', models.JSONField(blank=True, null=True)),
            ],
        ),
        migrations.CreateModel(
            name='Wearer',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=80)),
                ('part', models.CharField(blank=True, max_length=80)),
                ('is_child', models.BooleanField(default=False)),
                ('note', models.CharField(blank=True, max_length=500)),
                ('put_away_at', models.DateTimeField(blank=True, null=True)),
            ],
            options={
                'ordering': ['name'],
            },
        ),
        migrations.CreateModel(
            name='Revision',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('brief', models.JSONField()),
                ('size', models.PositiveIntegerField(default=0)),
                ('field', models.CharField(blank=True, max_length=120)),
                ('saved_at', models.DateTimeField()),
                ('burst', models.ForeignKey(null=True, on_delete=django.db.models.deletion.RESTRICT, related_name='+', to='workshop.revision')),
                ('parent', models.ForeignKey(null=True, on_delete=django.db.models.deletion.RESTRICT, related_name='next', to='workshop.revision')),
                ('piece', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='revisions', to='workshop.piece')),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.AddField(
            model_name='piece',
            name='head',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.RESTRICT, related_name='+', to='workshop.revision'),
        ),
        migrations.CreateModel(
            name='LogEntry',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=120)),
                ('wearer', models.CharField(blank=True, max_length=80)),
                ('kind', models.CharField(blank=True, max_length=40)),
                ('made_of', models.CharField(blank=True, max_length=200)),
                ('metals', models.CharField(blank=True, max_length=200)),
                ('reels', models.CharField(blank=True, max_length=400)),
                ('finished_on', models.DateField()),
                ('finished_at', models.DateTimeField()),
                ('planned_mm', models.FloatField(null=True)),
                ('made_mm', models.FloatField(null=True)),
                ('inside_planned_mm', models.FloatField(null=True)),
                ('inside_made_mm', models.FloatField(null=True)),
                ('tries', models.PositiveIntegerField(default=0)),
                ('minutes', models.FloatField(null=True)),
                ('minutes_planned', models.FloatField(default=0)),
                ('wire_mm', models.FloatField(default=0)),
                ('waste_mm', models.FloatField(default=0)),
                ('waste_g', models.FloatField(default=0)),
                ('material', models.FloatField(null=True)),
                ('unpriced', models.CharField(blank=True, max_length=400)),
                ('note', models.CharField(blank=True, max_length=500)),
                ('words', models.TextField(blank=True)),
                ('opened_at', models.DateTimeField(null=True)),
                ('put_away_at', models.DateTimeField(null=True)),
                ('piece', models.OneToOneField(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='entry', to='workshop.piece')),
                ('revision', models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='workshop.revision')),
            ],
        ),
        migrations.AddField(
            model_name='piece',
            name='wearer',
            field=models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='pieces', to='workshop.wearer'),
        ),
        migrations.CreateModel(
            name='Workshop',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=80)),
                ('shop', models.JSONField(default=dict)),
                ('shop_version', models.PositiveIntegerField(default=1)),
                ('closed_at', models.DateTimeField(blank=True, null=True)),
                ('kept_bytes', models.BigIntegerField(default=0)),
                ('hand', models.JSONField(default=dict)),
                ('hand_version', models.PositiveIntegerField(default=1)),
                ('tools_away', models.JSONField(default=list)),
                ('members', models.ManyToManyField(related_name='workshops', to=settings.AUTH_USER_MODEL)),
            ],
        ),
        migrations.AddField(
            model_name='wearer',
            name='workshop',
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop'),
        ),
        migrations.CreateModel(
            name='Wait',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('key', models.CharField(max_length=140)),
                ('title', models.CharField(max_length=300)),
                ('began_at', models.DateTimeField()),
                ('ends_at', models.DateTimeField()),
                ('over_at', models.DateTimeField(null=True)),
                ('piece', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='waits', to='workshop.piece')),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
            options={
                'ordering': ['ends_at', 'id'],
            },
        ),
        migrations.CreateModel(
            name='TryOnRecord',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('noted', models.JSONField()),
                ('answer', models.JSONField()),
                ('done', models.BooleanField(default=False)),
                ('noted_at', models.DateTimeField()),
                ('piece', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='tryons', to='workshop.piece')),
                ('revision', models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='workshop.revision')),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
            options={
                'ordering': ['id'],
            },
        ),
        migrations.CreateModel(
            name='Tick',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('kind', models.CharField(choices=[('cut', 'cut'), ('step', 'step'), ('need', 'need')], max_length=10)),
                ('key', models.CharField(max_length=140)),
                ('planned', models.FloatField(null=True)),
                ('actual', models.FloatField(null=True)),
                ('what', models.JSONField(default=dict)),
                ('ticked_at', models.DateTimeField()),
                ('undone_at', models.DateTimeField(null=True)),
                ('piece', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='ticks', to='workshop.piece')),
                ('revision', models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='workshop.revision')),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
            options={
                'ordering': ['id'],
            },
        ),
        migrations.CreateModel(
            name='Stock',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('kind', models.CharField(max_length=10)),
                ('name', models.CharField(max_length=80)),
                ('wire', models.JSONField(default=dict)),
                ('key', models.CharField(blank=True, db_index=True, max_length=120)),
                ('said', models.CharField(blank=True, max_length=120)),
                ('tare_g', models.FloatField(default=0)),
                ('price', models.FloatField(null=True)),
                ('low', models.FloatField(default=0)),
                ('size_mm', models.FloatField(null=True)),
                ('hole_mm', models.FloatField(null=True)),
                ('trial', models.JSONField(default=dict)),
                ('put_away_at', models.DateTimeField(blank=True, null=True)),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
            options={
                'ordering': ['kind', 'name', 'id'],
            },
        ),
        migrations.CreateModel(
            name='StepClock',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('key', models.CharField(max_length=140)),
                ('seconds', models.FloatField(default=0)),
                ('since', models.DateTimeField(null=True)),
                ('counted', models.PositiveIntegerField(default=0)),
                ('told', models.JSONField(default=dict)),
                ('piece', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='clocks', to='workshop.piece')),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
        ),
        migrations.AddField(
            model_name='revision',
            name='workshop',
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop'),
        ),
        migrations.CreateModel(
            name='Reading',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('site', models.CharField(max_length=40)),
                ('value', models.CharField(max_length=40)),
                ('unit', models.CharField(default='mm', max_length=2)),
                ('beside', models.JSONField(default=dict)),
                ('replaced', models.BooleanField(default=False)),
                ('wearer', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='readings', to='workshop.wearer')),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
            options={
                'ordering': ['id'],
            },
        ),
        migrations.AddField(
            model_name='piece',
            name='workshop',
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop'),
        ),
        migrations.CreateModel(
            name='Photo',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('picture', models.BinaryField()),
                ('width', models.PositiveIntegerField()),
                ('height', models.PositiveIntegerField()),
                ('at', models.DateTimeField()),
                ('entry', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='photos', to='workshop.logentry')),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
            options={
                'ordering': ['id'],
            },
        ),
        migrations.CreateModel(
            name='Movement',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('amount', models.FloatField()),
                ('reason', models.CharField(max_length=12)),
                ('note', models.CharField(blank=True, max_length=200)),
                ('at', models.DateTimeField()),
                ('undoes', models.OneToOneField(null=True, on_delete=django.db.models.deletion.RESTRICT, related_name='undone_by', to='workshop.movement')),
                ('stock', models.ForeignKey(on_delete=django.db.models.deletion.RESTRICT, related_name='movements', to='workshop.stock')),
                ('tick', models.ForeignKey(null=True, on_delete=django.db.models.deletion.RESTRICT, related_name='movements', to='workshop.tick')),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
            options={
                'ordering': ['id'],
            },
        ),
        migrations.CreateModel(
            name='LogWord',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('word', models.CharField(max_length=40)),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
        ),
        migrations.AddField(
            model_name='logentry',
            name='workshop',
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop'),
        ),
        migrations.CreateModel(
            name='HandRecord',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('kind', models.CharField(max_length=8)),
                ('technique', models.CharField(max_length=60)),
                ('stock', models.CharField(blank=True, max_length=120)),
                ('planned', models.FloatField()),
                ('took', models.FloatField()),
                ('ratio', models.FloatField()),
                ('source', models.CharField(max_length=12)),
                ('note', models.CharField(blank=True, max_length=200)),
                ('at', models.DateTimeField()),
                ('set_aside_at', models.DateTimeField(null=True)),
                ('why', models.CharField(blank=True, max_length=200)),
                ('piece', models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='records', to='workshop.piece')),
                ('reel', models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to='workshop.stock')),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
            options={
                'ordering': ['id'],
            },
        ),
        migrations.CreateModel(
            name='DayPlan',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('day', models.DateField()),
                ('chosen', models.JSONField(default=dict)),
                ('found', models.JSONField(default=dict)),
                ('worked_for', models.JSONField(default=dict)),
                ('worked_at', models.DateTimeField(null=True)),
                ('workshop', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='workshop.workshop')),
            ],
        ),
        migrations.AddConstraint(
            model_name='wearer',
            constraint=models.UniqueConstraint(fields=('workshop', 'name'), name='one_of_a_name'),
        ),
        migrations.AddConstraint(
            model_name='tick',
            constraint=models.UniqueConstraint(condition=models.Q(('undone_at__isnull', True)), fields=('piece', 'kind', 'key'), name='one_standing_tick'),
        ),
        migrations.AddConstraint(
            model_name='stepclock',
            constraint=models.UniqueConstraint(fields=('piece', 'key'), name='one_clock_of_a_step'),
        ),
        migrations.AddIndex(
            model_name='piece',
            index=models.Index(fields=['workshop', 'finished_at'], name='piece_finished'),
        ),
        migrations.AddConstraint(
            model_name='logword',
            constraint=models.UniqueConstraint(fields=('workshop', 'word'), name='one_of_a_log_word'),
        ),
        migrations.AddIndex(
            model_name='logentry',
            index=models.Index(fields=['workshop', '-id'], name='log_newest'),
        ),
        migrations.AddIndex(
            model_name='handrecord',
            index=models.Index(fields=['workshop', 'kind', 'technique', 'stock', '-id'], name='record_of_a_technique'),
        ),
        migrations.AddConstraint(
            model_name='dayplan',
            constraint=models.UniqueConstraint(fields=('workshop', 'day'), name='one_plan_of_a_day'),
        ),
        migrations.RunSQL(WORDS, UNDONE),
    ]
