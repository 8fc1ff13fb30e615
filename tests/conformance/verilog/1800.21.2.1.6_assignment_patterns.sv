// IEEE 1800-2017 clause 21.2.1.6: %p prints a value as an assignment pattern
module t;
  typedef enum {OFF, ON} mode;
  typedef struct { int id; mode m; logic [3:0] n[2]; } state;
  state s = '{7, ON, '{3, 4'hx}};
  struct packed { logic [3:0] hi, lo; } b = 8'h5a;
  int a[2:0] = '{1, -2, 3};
  string w = "hi";
  initial begin
    $display("%p", s);
    $display("%p %p", b, a);
    $display("%p %0p %p", w, s.m, 2.5);
    $display("[%6p]", 12);
  end
endmodule
//> '{id:7, m:ON, n:'{3, x}}
//> '{hi:5, lo:10} '{1, -2, 3}
//> "hi" ON 2.5
//> [    12]
