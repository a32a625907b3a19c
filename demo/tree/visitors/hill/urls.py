from django.contrib import admin
from django.urls import path

from evenings import views

urlpatterns = [
    path("", views.tonight, name="tonight"),
    path("evenings/<int:pk>/", views.evening, name="evening"),
    path("admin/", admin.site.urls),
]
