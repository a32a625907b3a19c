from django.db import models


class Evening(models.Model):
    date = models.DateField(unique=True)
    title = models.CharField(max_length=120)
    picture = models.ImageField(upload_to="evenings/", blank=True)

    class Meta:
        ordering = ["date"]

    def __str__(self):
        return f"{self.date}: {self.title}"
