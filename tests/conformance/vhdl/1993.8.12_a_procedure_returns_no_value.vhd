-- IEEE 1076-1993 clause 8.12: return with one
entity t is end;
architecture a of t is
  procedure p is
  begin
    return 3; --! return
  end;
begin
end;
