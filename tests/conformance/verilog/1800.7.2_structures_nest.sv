// IEEE 1800-2017 clause 7.2: members of members, by names and dots
module t;
  typedef struct packed { logic [1:0] x; logic [1:0] y; } at_t;
  typedef struct packed { at_t from; at_t to; } way_t;
  way_t w;
  initial begin
    w = '{from: '{2'd1, 2'd2}, to: '{2'd3, 2'd0}};
    w.to.y = 2'd2;
    $display("%0d %0d %0d %0d %h", w.from.x, w.from.y, w.to.x, w.to.y, w);
  end
endmodule
//> 1 2 3 2 6e
