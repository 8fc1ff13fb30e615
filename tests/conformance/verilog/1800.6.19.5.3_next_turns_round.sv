// IEEE 1800-2017 clause 6.19.5.3: `next` and `prev` go round
module t;
  typedef enum {RED, AMBER, GREEN} light;
  light l = GREEN;
  initial begin
    $display("%s %s %s", l.next.name, l.prev.name, l.prev.name);
    $display("%s %s %0d", l.first.name, l.last.name, l.num);
  end
endmodule
//> RED AMBER AMBER
//> RED GREEN 3
