from django.http import JsonResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone

from .models import Evening


def tonight(request):
    evening = Evening.objects.filter(date__gte=timezone.now().date()).first()
    return JsonResponse({"next": str(evening) if evening else None})


def evening(request, pk):
    found = get_object_or_404(Evening, pk=pk)
    return JsonResponse({"date": found.date.isoformat(), "title": found.title})
