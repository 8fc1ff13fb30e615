// IEEE 1800-2017 clause 6.24.3: digits of an array go into a structure by a stream
module t;
  typedef struct packed { logic [7:0] head; logic [15:0] body; } frame;
  byte bytes[3] = '{8'h01, 8'h02, 8'h03};
  frame f;
  initial begin
    f = frame'({>>{bytes}});
    $display("%h %h", f.head, f.body);
  end
endmodule
//> 01 0203
