-- IEEE 1076-2008 clause 13.4: no context of that name
context work.nowhere; --! no-context
entity t is end;
architecture a of t is
begin
end;
