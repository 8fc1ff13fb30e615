-- IEEE 1076-2008 clause 6.5.2: what VHDL-2019 brought is named as that
entity t is end;
architecture a of t is
  type r is record
    x : bit;
  end record;
  view master of r is --! unsupported
    x : in;
  end view;
begin
end;
